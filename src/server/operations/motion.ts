// What answers questions about motions and the cutting room.
import { succeed } from "@/contracts/errors";
import type { MOTION_OPERATIONS } from "@/contracts/operations/motion";
import { findCuttingRoom, handToCuttingRoom } from "../usecases/cuttingRoom";
import { listMotionFormats, startMotion, writeMotionStrip } from "../usecases/motion";
import { FileAnswer } from "./answers";
import type { Handlers } from "./bind";

export const motionHandlers: Handlers<keyof typeof MOTION_OPERATIONS> = {
  startMotion: ({ db, body, signal }) => startMotion(db, body, signal),
  listMotionFormats: () => listMotionFormats(),
  async writeMotionStrip({ db, body, signal }) {
    const strip = await writeMotionStrip(db, body, signal);
    return strip.ok ? succeed(new FileAnswer(strip.value, "image/png", { name: "moments.png" })) : strip;
  },
  getCuttingRoom: ({ signal }) => findCuttingRoom(signal),
  handToCuttingRoom: ({ db, body, signal }) => handToCuttingRoom(db, body, signal),
};
