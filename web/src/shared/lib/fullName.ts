/** A kept name with the extension it is kept with, if any. */
export const fullName = ({ shown, extension }: { shown: string; extension?: string | undefined }): string =>
  extension ? `${shown}.${extension}` : shown;

/** The brief's extensions, and the one a name is kept with where it is another. */
export const withOwn = (extensions: readonly string[], own: string): readonly string[] =>
  own && !extensions.includes(own) ? [...extensions, own] : extensions;
