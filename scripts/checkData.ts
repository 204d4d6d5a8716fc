// npm run check-data: the integrity of the database, and the store against its hashes. Ends with 1 where something is wrong.
import { checkData } from "../src/server/db/backup";
import { dataFolder } from "../src/server/db/folder";

const faults = await checkData(dataFolder());
for (const fault of faults) console.error(fault);
console.log(faults.length ? `${faults.length} faults` : `${dataFolder()} is sound.`);
process.exit(faults.length ? 1 : 0);
