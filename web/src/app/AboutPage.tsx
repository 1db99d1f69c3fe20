import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';

import { useVocabulary } from '../features/brief/useWords';
import { concepts } from '../shared/lib/concepts';
import { t } from '../shared/texts';

/** What the names are made from: the word data with its sources and licences, and the recipes. */
export function AboutPage() {
  const { data } = useVocabulary();
  return (
    <Box component="main" sx={{ maxWidth: 860, mx: 'auto', px: 3, py: 4 }}>
      <Typography variant="h1">{t('About Vine Tag')}</Typography>
      <Typography color="textSecondary" sx={{ mb: 3 }}>
        {t(
          'Names are grown from your sentence, your words and the world they belong to, judged by measures that give their reasons, and looked up at the registries. Nothing is sent anywhere but the names you check.',
        )}
      </Typography>
      <Typography variant="h2" sx={{ mb: 1 }}>
        {t('Recipes')}
      </Typography>
      <Box component="dl" sx={{ m: 0, mb: 3, display: 'grid', gridTemplateColumns: '110px 1fr', rowGap: 0.5 }}>
        {concepts().recipes.map(({ name, summary }) => (
          <Box key={name} sx={{ display: 'contents' }}>
            <Box component="dt" className="serif">
              {name}
            </Box>
            <Box component="dd" sx={{ m: 0 }}>
              {summary}
            </Box>
          </Box>
        ))}
      </Box>
      <Typography variant="h2" sx={{ mb: 1 }}>
        {t('Fields')}
      </Typography>
      <Typography sx={{ mb: 1 }}>
        {t(
          'What the people of a trade or a subject handle, do and say, written for Vine Tag. The fields nearest to your sentence are your world.',
        )}
      </Typography>
      <Box component="details" sx={{ mb: 3 }}>
        <Box component="summary" sx={{ cursor: 'pointer' }}>
          {t('{worlds, plural, one {# field} other {# fields}}', { worlds: data?.worlds.length ?? 0 })}
        </Box>
        <Typography variant="body2" sx={{ mt: 0.8, columns: { xs: 1, sm: 2 } }} component="ul">
          {data?.worlds.map((title) => (
            <li key={title}>{title}</li>
          ))}
        </Typography>
      </Box>
      <Typography variant="h2" sx={{ mb: 1 }}>
        {t('Who is asked')}
      </Typography>
      <Box
        component="dl"
        sx={{
          m: 0,
          mb: 3,
          display: 'grid',
          gridTemplateColumns: { xs: '1fr', sm: '170px 1fr' },
          rowGap: 0.5,
        }}>
        {concepts().sources.map(({ name, word, summary }) => (
          <Box key={name} sx={{ display: 'contents' }}>
            <Box component="dt" className="serif">
              {word}
            </Box>
            <Box component="dd" sx={{ m: 0 }}>
              {summary}
            </Box>
          </Box>
        ))}
      </Box>
      <Typography variant="h2" sx={{ mb: 1 }}>
        {t('Word data')}
      </Typography>
      <Stack component="ul" sx={{ m: 0, p: 0, listStyle: 'none', gap: 0.5 }}>
        {data?.sources.map(({ name, version, licence }) => (
          <li key={name}>
            <span className="serif">{name}</span> {version} · {licence}
          </li>
        ))}
      </Stack>
      <Button component={Link} to="/" variant="outlined" sx={{ mt: 3 }}>
        {t('To the projects')}
      </Button>
    </Box>
  );
}
