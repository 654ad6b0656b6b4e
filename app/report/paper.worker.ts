import { pdfBlob } from './make-pdf';
import { sheetDocument } from './sheet-document';
import { serve } from '../threads/worker-client';
import type { PaperJobs } from './paper.protocol';

serve<PaperJobs>(
  {
    sheet: (paper, line) => pdfBlob(sheetDocument(paper), (share) => line.progress(share)),
  },
  self,
);
