import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import IconButton from '@mui/material/IconButton';
import Link from '@mui/material/Link';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Tooltip from '@mui/material/Tooltip';
import Typography from '@mui/material/Typography';
import { lazy, Suspense, type SyntheticEvent, useState } from 'react';

import type { ApiError, Keyword, Opened } from '../../shared/api';
import { CrossIcon } from '../../shared/ui/icons';
import { rich, t } from '../../shared/texts';

const KeywordDialog = lazy(async () => ({ default: (await import('./KeywordDialog')).KeywordDialog }));

interface WeightProps {
  keyword: Keyword;
  onChange: (weight: number) => void;
}

/** Five leaves; the filled ones are the weight. Arrow keys change it. */
function Weight({ keyword, onChange }: WeightProps) {
  return (
    <Tooltip title={t('Weight {weight} of 5', { weight: keyword.weight })}>
      <Box
        role="slider"
        tabIndex={0}
        aria-label={t('Weight of {keyword}', { keyword: keyword.text })}
        aria-valuemin={1}
        aria-valuemax={5}
        aria-valuenow={keyword.weight}
        onKeyDown={(e) => {
          const step = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[e.key];
          if (!step) return;
          e.preventDefault();
          onChange(Math.min(5, Math.max(1, keyword.weight + step)));
        }}
        sx={{ display: 'flex', px: 0.5, borderRadius: 1 }}>
        {[1, 2, 3, 4, 5].map((n) => (
          <Box key={n} aria-hidden onClick={() => onChange(n)} sx={{ py: 0.8, px: '2px', cursor: 'pointer' }}>
            <Box
              sx={{
                width: 9,
                height: 12,
                borderRadius: '1px 8px 1px 8px',
                border: 1,
                borderColor: 'secondary.main',
                bgcolor: n <= keyword.weight ? 'secondary.main' : 'transparent',
              }}
            />
          </Box>
        ))}
      </Box>
    </Tooltip>
  );
}

interface Props {
  keywords: readonly Keyword[];
  onChange: (keywords: Keyword[]) => void;
  error: ApiError | null;
  /** What each keyword leads to, of the saved brief. */
  opened: readonly Opened[];
  groups: Readonly<Record<string, string>>;
}

/** The keywords with their weights; a refused one keeps its place and says why. */
export function KeywordList({ keywords, onChange, error, opened, groups }: Props) {
  const [around, setAround] = useState<string | null>(null);
  const looked = keywords.find((k) => k.text === around);
  const [typed, setTyped] = useState('');
  const add = (event: SyntheticEvent) => {
    event.preventDefault();
    const have = new Set(keywords.map((k) => k.text));
    const fresh = typed
      .split(/[,;\n]/)
      .map((t) => t.trim().toLowerCase())
      .filter((t) => t && !have.has(t));
    if (typed && !typed.trim()) return;
    if (fresh.length)
      onChange([...keywords, ...[...new Set(fresh)].map((text) => ({ text, weight: 3, senses: [], drop: [] }))]);
    setTyped('');
  };
  const whole = error?.at('brief.keywords');
  const isBlank = typed.length > 0 && typed.trim() === '';
  return (
    <Stack sx={{ gap: 0.2 }}>
      <Stack component="ul" aria-label={t('Keywords')} sx={{ m: 0, p: 0, listStyle: 'none' }}>
        {keywords.map((keyword, i) => {
          const suggestion = opened.find((o) => o.keyword === keyword.text)?.suggestion;
          const problem = error?.at(`brief.keywords.${i}`, true);
          return (
            <Box component="li" key={keyword.text} sx={{ borderBottom: 1, borderColor: 'divider' }}>
              <Stack direction="row" sx={{ alignItems: 'center', minHeight: 30 }}>
                <ButtonBase
                  className="serif"
                  title={t('Words around {keyword}', { keyword: keyword.text })}
                  onClick={() => setAround(keyword.text)}
                  sx={{
                    flex: 1,
                    minWidth: 0,
                    justifyContent: 'flex-start',
                    fontSize: '0.98rem',
                    color: problem ? 'error.main' : 'text.primary',
                    textDecoration: 'underline',
                    textDecorationColor: 'var(--mui-palette-wire)',
                    textUnderlineOffset: 3,
                  }}>
                  <Box component="span" sx={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
                    {keyword.text}
                  </Box>
                </ButtonBase>
                <Weight
                  keyword={keyword}
                  onChange={(weight) => onChange(keywords.map((k, j) => (j === i ? { ...k, weight } : k)))}
                />
                <IconButton
                  size="small"
                  aria-label={t('Remove {keyword}', { keyword: keyword.text })}
                  onClick={() => onChange(keywords.filter((_, j) => j !== i))}>
                  <CrossIcon sx={{ fontSize: 15 }} />
                </IconButton>
              </Stack>
              {suggestion && (
                <Typography variant="caption" color="textSecondary" sx={{ display: 'block', pb: 0.4 }}>
                  {rich('Did you mean {link}?', {
                    link: (
                      <Link
                        component="button"
                        type="button"
                        variant="caption"
                        onClick={() => {
                          onChange(
                            keywords.map((k, j) => (j === i ? { ...k, text: suggestion, senses: [], drop: [] } : k)),
                          );
                        }}>
                        {suggestion}
                      </Link>
                    ),
                  })}
                </Typography>
              )}
              {problem && (
                <Typography role="alert" variant="caption" color="error" sx={{ display: 'block', pb: 0.6 }}>
                  {problem}
                </Typography>
              )}
            </Box>
          );
        })}
      </Stack>
      <Box component="form" onSubmit={add} sx={{ mt: 1 }}>
        <TextField
          fullWidth
          label={t('Add words')}
          value={typed}
          onChange={(e) => setTyped(e.target.value)}
          onBlur={(e) => {
            if (typed.trim()) add(e);
          }}
          error={Boolean(whole) || isBlank}
          helperText={whole ?? (isBlank ? t('Write a word; spaces alone are none.') : undefined)}
          slotProps={{ htmlInput: { 'aria-describedby': 'add-words-help' } }}
        />
        {!keywords.length && (
          <Typography id="add-words-help" variant="caption" color="textSecondary">
            {t('Words the name should carry or hint at. Commas between them, Enter to add.')}
          </Typography>
        )}
      </Box>
      {looked && (
        <Suspense>
          <KeywordDialog
            keyword={looked}
            opened={opened.find((o) => o.keyword === looked.text)}
            groups={groups}
            keywords={keywords}
            onChange={onChange}
            onClose={() => setAround(null)}
          />
        </Suspense>
      )}
    </Stack>
  );
}
