/** The largest file that is kept beside an attestation, in bytes. */
export const MOST_FILE_BYTES = 5 * 1024 * 1024;
