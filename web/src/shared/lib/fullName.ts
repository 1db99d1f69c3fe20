/** A kept name with the extension it is kept with, if any. */
export const fullName = ({ shown, extension }: { shown: string; extension?: string | undefined }): string => (extension ? `${shown}.${extension}` : shown);
