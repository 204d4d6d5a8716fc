// Worker entry: writes the contact sheet, which takes seconds for long shortlists.
import { writeContactSheet, type SheetInput } from "@/core/write/contactSheet";

export type WriteSheetRequest = SheetInput;

export default async function writeSheet(request: WriteSheetRequest): Promise<Uint8Array> {
  return (await writeContactSheet(request)).pdf;
}
