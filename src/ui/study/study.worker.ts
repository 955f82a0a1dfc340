import { expose, transfer } from 'comlink';
import type { Picture } from '@/core/arrange/picture';
import type { Job } from '@/core/doc/job';
import { localHost } from '@/core/kernels/host';
import { type StudyCase, setupsToStudy, studyBeside, webPicture } from '@/core/proof/study';

/** A case of a study with its web map, as the page shows it. */
export interface ShownCase extends Omit<StudyCase, 'solid'> {
  picture: Picture;
}

/** What is studied: a board of a job, with the programs of all its setups. */
export interface StudyAsked {
  document: Job;
  board: string;
  programs: Parameters<typeof setupsToStudy>[2];
  shift: number;
  turn: number;
}

const api = {
  /** Cuts the board in nine places, one after the other. @param onCase called after each @throws ProgramError */
  async study({ document, board: id, programs, ...far }: StudyAsked, onCase: (done: number) => void) {
    const board = document.boards.find((b) => b.id === id);
    if (!board) return [];
    const cases = await studyBeside(board, setupsToStudy(document, board, programs), far, localHost, onCase);
    const shown = cases.map(({ solid, ...c }): ShownCase => ({ ...c, picture: webPicture({ solid }, board) }));
    return transfer(
      shown,
      shown.map((c) => c.picture.data.buffer),
    );
  },
};

export type StudyApi = typeof api;

expose(api);
