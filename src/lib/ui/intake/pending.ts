/** A file on its way from the shelf to the intake page. */
export const pending: { file: File | null } = { file: null };
