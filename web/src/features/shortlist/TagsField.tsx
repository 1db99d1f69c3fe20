import { useEffect, useRef, useState } from 'react';

import { asApiError, elsewhereOf } from '../../shared/api';
import { ChipsField } from '../../shared/ui/ChipsField';
import { Elsewhere } from '../../shared/ui/Elsewhere';
import { useTags } from './useRemarks';
import { t } from '../../shared/texts';

interface Props {
  projectId: number;
  label: string;
  shown: string;
  tags: readonly string[];
  /** Tags other names have, to choose from. */
  known: readonly string[];
}

const listed = (tags: readonly string[]) => tags.join(', ') || t('none');

/** The tags of a kept name. Others set elsewhere meanwhile are never written over unasked. */
export function TagsField({ projectId, label, shown, tags, known }: Props) {
  const [unsaved, setUnsaved] = useState<readonly string[] | null>(null);
  // The tags that what stands here was made from.
  const base = useRef(tags);
  const { mutate, error, isPending, reset, settle } = useTags({ projectId, label }, base);
  const keep = (next: readonly string[], over?: readonly string[]) => {
    setUnsaved(next);
    mutate(
      { next, over },
      {
        onSuccess: () => {
          setUnsaved(null);
        },
      },
    );
  };
  const theirs = elsewhereOf<{ tags: string[] }>(error)?.tags ?? null;
  useEffect(() => {
    if (!isPending && theirs === null) base.current = tags;
  }, [tags, isPending, theirs]);
  const failed = theirs === null ? asApiError(error) : null;
  return (
    <>
      <ChipsField
        label={t('Tags of {shown}', { shown })}
        value={unsaved ?? tags}
        options={known}
        onChange={(next) => {
          if (theirs) setUnsaved(next);
          else keep(next);
        }}
        error={failed ? (failed.at('tags', true) ?? failed.message) : undefined}
      />
      {theirs && (
        <Elsewhere
          what={t('The list of tags')}
          parts={[{ word: t('Tags'), here: listed(unsaved ?? tags), there: listed(theirs) }]}
          onMine={() => keep(unsaved ?? tags, theirs)}
          onTheirs={() => {
            void settle(theirs).then(() => {
              setUnsaved(null);
              reset();
            });
          }}
        />
      )}
    </>
  );
}
