// What answers questions about letterings.
import { succeed } from "@/contracts/errors";
import { LETTERING_FILES, type LETTERING_OPERATIONS } from "@/contracts/operations/letterings";
import {
  changeLettering,
  checkLetteringIn,
  createLettering,
  deleteLettering,
  layOutLettering,
  listBriefLetterings,
  stepLettering,
  writeLetteringFile,
} from "../usecases/letterings";
import { findLettering } from "../queries/letterings";
import { findPlotter, sendToPlotter } from "../usecases/plotter";
import { FileAnswer } from "./answers";
import { found, type Handlers } from "./bind";

export const letteringHandlers: Handlers<keyof typeof LETTERING_OPERATIONS> = {
  listLetterings: ({ db, params }) => listBriefLetterings(db, params.id),
  createLettering: ({ db, params, body }) => createLettering(db, params.id, body),
  getLettering: ({ db, params }) => found(findLettering(db, params.id)),
  changeLettering: ({ db, params, body }) => changeLettering(db, params.id, body),
  deleteLettering: ({ db, params }) => deleteLettering(db, params.id),
  undoLettering: ({ db, params }) => stepLettering(db, params.id, -1),
  redoLettering: ({ db, params }) => stepLettering(db, params.id, 1),
  layoutLettering: ({ db, body, signal }) => layOutLettering(db, body.document, signal),
  checkLettering: ({ db, body, signal }) => checkLetteringIn(db, body.document, body.material, signal),
  getPlotter: ({ signal }) => findPlotter(signal),
  sendToPlotter: ({ db, body, signal }) => sendToPlotter(db, body, signal),
  async writeLettering({ db, body, signal }) {
    const written = await writeLetteringFile(db, body, signal);
    if (!written.ok) return written;
    const { type, extension } = LETTERING_FILES[body.format];
    return succeed(new FileAnswer(written.value, type, { name: `lettering.${extension}` }));
  },
};
