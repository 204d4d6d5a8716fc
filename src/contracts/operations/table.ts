// All that can be asked over HTTP: the only table. What is not here is not served.
import { BRIEF_OPERATIONS } from "./briefs";
import { COMPARE_OPERATIONS } from "./compare";
import { IDENTIFY_OPERATIONS } from "./identify";
import { LETTERING_OPERATIONS } from "./letterings";
import { LIBRARY_OPERATIONS } from "./libraries";
import { MOTION_OPERATIONS } from "./motion";
import { SERVER_OPERATIONS } from "./server";
import { SHARE_OPERATIONS } from "./shares";
import { STYLE_OPERATIONS } from "./styles";

export const OPERATIONS = {
  ...SERVER_OPERATIONS,
  ...STYLE_OPERATIONS,
  ...BRIEF_OPERATIONS,
  ...COMPARE_OPERATIONS,
  ...SHARE_OPERATIONS,
  ...LETTERING_OPERATIONS,
  ...MOTION_OPERATIONS,
  ...IDENTIFY_OPERATIONS,
  ...LIBRARY_OPERATIONS,
};
export type Operations = typeof OPERATIONS;
export type OperationName = keyof Operations;
