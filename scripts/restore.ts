// npm run restore -- <file.zip>: puts a backup into the data folder (FOND_QUARRY_DATA or ./data), which must hold none.
import { restore } from "../src/server/db/backup";
import { dataFolder } from "../src/server/db/folder";

const [file] = process.argv.slice(2);
if (!file) {
  console.error("npm run restore -- <file.zip>");
  process.exit(2);
}
try {
  console.log(`${dataFolder()}: the database and ${await restore(file, dataFolder())} files.`);
} catch (error) {
  console.error((error as Error).message);
  process.exit(1);
}
