import Alert from '@mui/material/Alert';
import Autocomplete from '@mui/material/Autocomplete';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';

import { asApiError, type Project, type VettingReport } from '../../shared/api';
import { concepts } from '../../shared/lib/concepts';
import { formatCountry } from '../../shared/lib/format';
import { t } from '../../shared/texts';
import { useVettedFor } from './useVetting';

interface Props {
  project: Project;
  report: VettingReport;
  countries: readonly { code: string; name: string }[];
}

/** What names are vetted for: classes of goods, and countries they are to be sold in. */
export function ForFields({ project, report, countries }: Props) {
  const change = useVettedFor(project);
  const classes = concepts().mark_classes;
  const titleOf = (number: number) => `${number} ${classes.find((c) => c.number === number)?.title ?? ''}`;
  const failed = asApiError(change.error);
  return (
    <Stack sx={{ mb: 2, gap: 1 }}>
      <Stack direction="row" role="group" aria-label={t('Vetted for')} sx={{ gap: 1.5, flexWrap: 'wrap' }}>
        <Autocomplete
          multiple
          size="small"
          options={classes.map((c) => c.number)}
          value={report.classes}
          getOptionLabel={titleOf}
          disabled={change.isPending}
          onChange={(_, chosen) => change.mutate({ classes: chosen })}
          renderInput={(params) => (
            <TextField
              {...params}
              label={t('Classes of goods and services')}
              helperText={
                report.classes_proposed
                  ? report.classes.length
                    ? t('Proposed from the words of your brief: change them where they are not yours.')
                    : t('Your brief does not say what is sold: marks of all classes count alike.')
                  : undefined
              }
            />
          )}
          sx={{ flex: '1 1 340px', minWidth: 260 }}
        />
        <Autocomplete
          multiple
          size="small"
          options={countries.map((c) => c.code)}
          value={report.markets}
          getOptionLabel={formatCountry}
          disabled={change.isPending}
          onChange={(_, chosen) => change.mutate({ markets: chosen })}
          renderInput={(params) => (
            <TextField
              {...params}
              label={t('Markets')}
              helperText={report.markets.length ? undefined : t('Without a country every language counts alike.')}
            />
          )}
          sx={{ flex: '1 1 240px', minWidth: 220 }}
        />
        {!report.classes_proposed && (
          <Button size="small" onClick={() => change.mutate({ classes: [] })} sx={{ alignSelf: 'flex-start', mt: 0.4 }}>
            {t('As proposed')}
          </Button>
        )}
      </Stack>
      {failed && (
        <Alert severity="error">
          {failed.status === 409
            ? t('The brief was changed elsewhere meanwhile. Load the page again.')
            : (failed.problems[0]?.message ?? failed.message)}
        </Alert>
      )}
      <Typography variant="body2" color="textSecondary">
        {t(
          'Asked are {marks, plural, =0 {no register of marks} one {a register of one mark} other {a register of # marks}}, {platforms, plural, =0 {no platform} one {one platform} other {# platforms}} and {search, select, yes {a search service} other {no search service}}. None of this is legal advice.',
          { marks: report.marks, platforms: report.platforms, search: report.search ? 'yes' : 'no' },
        )}
      </Typography>
    </Stack>
  );
}
