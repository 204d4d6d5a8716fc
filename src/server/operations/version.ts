// The version of the program, as package.json says it.
import { version } from "../../../package.json";

export const VERSION: string = version;
