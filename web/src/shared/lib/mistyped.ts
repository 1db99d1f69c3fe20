import { t } from '../texts';

const WORDS: Record<string, string> = {
  heard: t('heard and written so'),
  slip: t('a slip of the finger'),
  look: t('looks alike'),
  form: t('another form'),
  hyphen: t('a hyphen more'),
  order: t('the other order'),
  aloud: t('the extension said'),
  extension: t('another extension'),
  disguise: t('other letters that look the same'),
};

/** How a mistype comes about, in words. */
export const mistypedBy = (kind: string): string => WORDS[kind] ?? kind;
