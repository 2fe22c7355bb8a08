import { bookOf, bookPages, type LabelKind, labelSheets } from '../../core/formats';
import { analyse, type Report } from '../../core/report';
import type { Rig } from '../../core/rig';
import { printPdf } from '../../print/pdf';

/** What a rig book is to hold. */
export interface BookChoice {
  paper: 'A4' | 'Letter';
  /** Parts by their ids; all where it is left out. */
  parts?: string[] | undefined;
  labels: LabelKind[];
  level: 'dBu' | 'dBV';
  length: 'metric' | 'imperial';
  revision: string;
  date: string;
  /** The address of the rig, for the codes on its labels. */
  link: string;
}

/** Work that would keep others waiting, by name: done in threads of its own. */
export const TASKS = {
  report: ({ rig }: { rig: Rig }): Promise<Report> => Promise.resolve(analyse(rig)),
  /** A PDF; nothing where nothing of what was chosen is there. */
  book: async ({
    rig,
    choice: c,
  }: {
    rig: Rig;
    choice: BookChoice;
  }): Promise<Uint8Array | null> => {
    const parts =
      c.parts?.length === 0
        ? []
        : bookOf(rig, analyse(rig), c).filter((p) => !c.parts || c.parts.includes(p.id));
    const sheets = c.labels.flatMap((k) => labelSheets(rig, k, c.paper, c.link));
    if (!parts.length && !sheets.length) return null;
    const words = { rig: rig.name, revision: c.revision, date: c.date };
    return new Uint8Array(await printPdf(bookPages(parts, sheets, c.paper, words)));
  },
};

export type TaskName = keyof typeof TASKS;
export type Ask<N extends TaskName> = Parameters<(typeof TASKS)[N]>[0];
export type Done<N extends TaskName> = Awaited<ReturnType<(typeof TASKS)[N]>>;
