// How much one request may bring, in bytes.
const MEGABYTE = 1024 * 1024;

export const MAX_PICTURE_BYTES = 40 * MEGABYTE;
export const MAX_BRIEF_PICTURE_BYTES = 60e6;
export const MAX_DOCUMENT_BYTES = 80 * MEGABYTE;
export const MAX_UPLOAD_BYTES = 512 * MEGABYTE;
