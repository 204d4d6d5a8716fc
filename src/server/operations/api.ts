// The whole interface, ready to be mounted.
import { bindOperations } from "./bind";
import { briefHandlers } from "./briefs";
import { compareHandlers } from "./compare";
import { identifyHandlers } from "./identify";
import { letteringHandlers } from "./letterings";
import { libraryHandlers } from "./libraries";
import { motionHandlers } from "./motion";
import { serverHandlers } from "./server";
import { shareHandlers } from "./shares";
import { styleHandlers } from "./styles";

export const api = bindOperations(
  {
    ...serverHandlers,
    ...styleHandlers,
    ...briefHandlers,
    ...compareHandlers,
    ...shareHandlers,
    ...letteringHandlers,
    ...motionHandlers,
    ...identifyHandlers,
    ...libraryHandlers,
  },
  "/api/v1",
);
