import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import Chip from '@mui/material/Chip';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import FormControlLabel from '@mui/material/FormControlLabel';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';

import type { Keyword, Offer, Opened } from '../../shared/api';
import { t } from '../../shared/texts';

const POS: Record<string, string> = { n: t('noun'), v: t('verb'), a: t('adjective'), r: t('adverb') };
const KEPT_WEIGHT = 2;

interface Props {
  keyword: Keyword;
  opened: Opened | undefined;
  groups: Readonly<Record<string, string>>;
  keywords: readonly Keyword[];
  onChange: (keywords: Keyword[]) => void;
  onClose: () => void;
}

function Senses({ opened, onPick }: { opened: Opened; onPick: (ids: number[]) => void }) {
  const taken = new Set(opened.taken);
  return (
    <Stack role="group" aria-label={t('Meanings')} sx={{ gap: 0 }}>
      {opened.senses.map((sense) => (
        <FormControlLabel
          key={sense.id}
          control={<Checkbox size="small" color="secondary" checked={taken.has(sense.id)} sx={{ py: 0.3 }} />}
          onChange={(_, checked) => onPick(checked ? [...taken, sense.id] : [...taken].filter((id) => id !== sense.id))}
          label={
            <Typography variant="body2">
              <Box component="span" sx={{ color: 'text.secondary' }}>
                {POS[sense.pos] ?? ''} ·{' '}
              </Box>
              {sense.gloss}
            </Typography>
          }
        />
      ))}
    </Stack>
  );
}

function OfferChip({
  offer,
  kept,
  onKeep,
  onDrop,
}: {
  offer: Offer;
  kept: boolean;
  onKeep: () => void;
  onDrop: () => void;
}) {
  return (
    <Chip
      size="small"
      className="serif"
      label={offer.text}
      title={
        kept
          ? t('Kept as a word of its own; press to let it go')
          : t('Press to keep it as a word of its own; the cross drops it')
      }
      aria-pressed={kept}
      color={kept ? 'secondary' : 'default'}
      variant={kept ? 'filled' : 'outlined'}
      onClick={onKeep}
      {...(kept ? {} : { onDelete: onDrop })}
      sx={{ opacity: kept ? 1 : 0.72 + 0.28 * offer.closeness }}
    />
  );
}

/** What a keyword leads to: its meanings, and words by group, each kept or dropped by one press. */
export function KeywordDialog({ keyword, opened, groups, keywords, onChange, onClose }: Props) {
  const have = new Set(keywords.map((k) => k.text));
  const put = (part: Partial<Keyword>) => {
    onChange(keywords.map((k) => (k.text === keyword.text ? { ...k, ...part } : k)));
  };
  const keep = (text: string) => {
    if (have.has(text)) onChange(keywords.filter((k) => k.text !== text));
    else onChange([...keywords, { text, weight: KEPT_WEIGHT, senses: [], drop: [] }]);
  };
  const words = keyword.text.split(' ');
  const split = () => {
    const rest = keywords.filter((k) => k.text !== keyword.text);
    const fresh = words.filter((w) => !have.has(w)).map((text) => ({ ...keyword, text, senses: [], drop: [] }));
    onChange([...rest, ...fresh]);
    onClose();
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="md" aria-labelledby="keyword-title">
      <DialogTitle id="keyword-title" variant="h2" component="h2">
        {t('Words around “{keyword}”', { keyword: keyword.text })}
      </DialogTitle>
      <DialogContent>
        {!opened && <Typography color="textSecondary">{t('It is opened up once the brief is saved.')}</Typography>}
        {opened && (
          <Stack sx={{ gap: 2 }}>
            {opened.senses.length > 1 && (
              <Box>
                <Typography variant="h3">{t('Which meaning?')}</Typography>
                <Senses opened={opened} onPick={(senses) => put({ senses })} />
              </Box>
            )}
            {opened.offers.length === 0 && (
              <Typography color="textSecondary">
                {t('The word data has nothing on it: it is used as it is, as brand words are.')}
              </Typography>
            )}
            {Object.entries(groups).map(([group, title]) => {
              const offers = opened.offers.filter((o) => o.group === group);
              return offers.length === 0 ? null : (
                <Box key={group} role="group" aria-label={title}>
                  <Typography variant="h3" sx={{ mb: 0.6 }}>
                    {title[0]?.toUpperCase()}
                    {title.slice(1)}
                  </Typography>
                  <Stack direction="row" sx={{ flexWrap: 'wrap', gap: 0.6 }}>
                    {offers.map((offer) => (
                      <OfferChip
                        key={offer.text}
                        offer={offer}
                        kept={have.has(offer.text)}
                        onKeep={() => keep(offer.text)}
                        onDrop={() => put({ drop: [...keyword.drop, offer.text] })}
                      />
                    ))}
                  </Stack>
                </Box>
              );
            })}
            {keyword.drop.length > 0 && (
              <Box role="group" aria-label={t('Dropped')}>
                <Typography variant="h3" sx={{ mb: 0.6 }}>
                  {t('Dropped')}
                </Typography>
                <Stack direction="row" sx={{ flexWrap: 'wrap', gap: 0.6 }}>
                  {keyword.drop.map((text) => (
                    <Chip
                      key={text}
                      size="small"
                      label={text}
                      title={t('Take it back')}
                      onClick={() => put({ drop: keyword.drop.filter((d) => d !== text) })}
                      sx={{ textDecoration: 'line-through' }}
                    />
                  ))}
                </Stack>
              </Box>
            )}
          </Stack>
        )}
      </DialogContent>
      <DialogActions>
        {words.length > 1 && <Button onClick={split}>{t('Split into words')}</Button>}
        <Button onClick={onClose} variant="contained">
          {t('Done')}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
