import type { Roles } from '@core/trace/trace';

/** Which channel is said to be the crank, and which to be which cam of the drive; the others are not used. */
export type SaidRoles = { crank: number; cams: { channel: number; cam: number }[] };
/** What one channel is: the crank, a cam of the drive by its place, or nothing that is used. */
export type ChannelRole = 'crank' | `cam:${number}` | 'none';

/** Channels in the order of the drive's cams. */
export const rolesOf = ({ crank, cams }: SaidRoles): Roles => ({
  crank,
  cams: [...cams].sort((a, b) => a.cam - b.cam).map((c) => c.channel),
});

export function partOf({ crank, cams }: SaidRoles, channel: number): ChannelRole {
  if (channel === crank) return 'crank';
  const cam = cams.find((c) => c.channel === channel);
  return cam ? `cam:${cam.cam}` : 'none';
}

/** The roles once a channel is said to be something: what had that part before takes the channel's own. */
export function withPart(roles: SaidRoles, channel: number, part: ChannelRole): SaidRoles {
  const was = partOf(roles, channel);
  const before =
    part === 'crank'
      ? roles.crank
      : part === 'none'
        ? undefined
        : roles.cams.find((c) => `cam:${c.cam}` === part)?.channel;
  const parts = new Map<number, ChannelRole>([
    [roles.crank, 'crank'],
    ...roles.cams.map((c): [number, ChannelRole] => [c.channel, `cam:${c.cam}`]),
  ]);
  parts.set(channel, part);
  if (before !== undefined && before !== channel) parts.set(before, was);
  const entries = [...parts];
  return {
    // A capture without a crank cannot be read: the channel stays it until another one is said.
    crank: entries.find(([, p]) => p === 'crank')?.[0] ?? roles.crank,
    cams: entries.flatMap(([c, p]) =>
      p.startsWith('cam:') ? [{ channel: c, cam: Number(p.slice(4)) }] : [],
    ),
  };
}
