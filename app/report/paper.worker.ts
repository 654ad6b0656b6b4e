import { pdfBlob } from './make-pdf';
import { setPaper } from './set-paper';
import { sheetDocument } from './sheet-document';
import { serveJobs } from '../threads/worker-client';
import type { PaperJobs } from './paper.protocol';

serveJobs<PaperJobs>(
  {
    sheet: (paper, line) => pdfBlob(sheetDocument(paper), (share) => line.progress(share)),
    paper: (ask, line) => setPaper(ask, (share) => line.progress(share)),
  },
  self,
);
