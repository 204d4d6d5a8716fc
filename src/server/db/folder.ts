// Where the user's data lie.
import { join } from "node:path";

/** The folder of the user's data: FOND_QUARRY_DATA or ./data. */
export const dataFolder = () => process.env.FOND_QUARRY_DATA || join(process.cwd(), "data");
