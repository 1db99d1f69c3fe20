import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';

import { asApiError, elsewhereOf, type Extension } from '../../shared/api';
import { formatMoney } from '../../shared/lib/format';
import { EmptyState } from '../../shared/ui/EmptyState';
import { Elsewhere } from '../../shared/ui/Elsewhere';
import { FileButton } from '../../shared/ui/FileButton';
import { ExtensionDialog } from './ExtensionDialog';
import { useCatalogueChanges, useExtensions } from './useExtensions';
import { LoadFailed } from '../../shared/ui/LoadFailed';
import { t } from '../../shared/texts';

const EMPTY: Extension = {
  extension: '',
  kind: 'newer',
  country: '',
  works: ['any'],
  use: '',
  eligibility: 'open',
  rule: '',
  letters_min: 1,
  letters_max: 63,
  idn: true,
  yearly: null,
  rdap: '',
  whois: '',
  whois_query: '',
  whois_absent: '',
};

/** The catalogue of extensions: what each is used for, who may register, and what a year costs about. */
export function ExtensionsPage() {
  const { data, error, refetch } = useExtensions();
  const { importFile } = useCatalogueChanges();
  const [text, setText] = useState('');
  const [kind, setKind] = useState('');
  const [editing, setEditing] = useState<Extension | null>(null);
  if (!data)
    return error ? (
      <LoadFailed title={t('The extensions could not be loaded')} error={error} onRetry={refetch} />
    ) : (
      <LinearProgress aria-label={t('Loading')} />
    );
  const countries = new Map(data.countries.map((c) => [c.code, c.name]));
  const wanted = text.toLowerCase().replace(/^\./, '');
  const shown = data.extensions.filter(
    (e) =>
      (!kind || e.kind === kind) &&
      (!wanted ||
        `${e.extension} ${e.use} ${countries.get(e.country) ?? ''} ${e.works.join(' ')}`
          .toLowerCase()
          .includes(wanted)),
  );
  const newer = elsewhereOf<{ version: string }>(importFile.error)?.version;
  const refused = newer ? null : asApiError(importFile.error);
  return (
    <Box component="main" sx={{ maxWidth: 1180, mx: 'auto', px: { xs: 1.5, md: 3 }, py: 3 }}>
      <Typography variant="h1">{t('Extensions')}</Typography>
      <Typography color="textSecondary" sx={{ mb: 2 }}>
        {t(
          '{extensions, plural, one {# extension} other {# extensions}}. Rules and prices are a guide; the registry decides, and the seller sets the price.',
          { extensions: data.extensions.length },
        )}
      </Typography>
      <Stack direction="row" sx={{ gap: 1, mb: 1.5, flexWrap: 'wrap' }}>
        <TextField label={t('Find')} value={text} onChange={(e) => setText(e.target.value)} />
        <TextField
          select
          label={t('Kind')}
          value={kind}
          onChange={(e) => setKind(e.target.value)}
          sx={{ width: 150 }}
          slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}>
          <MenuItem value="">{t('all kinds')}</MenuItem>
          {data.kinds.map((k) => (
            <MenuItem key={k} value={k}>
              {k}
            </MenuItem>
          ))}
        </TextField>
        <Button component="a" href="/api/extensions/file" download variant="outlined">
          {t('Export as CSV')}
        </Button>
        {data.may_edit && (
          <>
            <FileButton
              accept=".csv,text/csv"
              label={t('File of extensions')}
              disabled={importFile.isPending}
              onFile={(chosen) => void chosen.text().then((text) => importFile.mutate({ text, seen: data.version }))}>
              {t('Import CSV')}
            </FileButton>
            <Button variant="contained" onClick={() => setEditing(EMPTY)}>
              {t('Add one')}
            </Button>
          </>
        )}
      </Stack>
      {newer && importFile.variables && (
        <Elsewhere
          what={t('The catalogue')}
          parts={[
            {
              word: t('Extensions'),
              here: t('those of your file'),
              there: t('as someone changed them since this page was loaded'),
            },
          ]}
          onMine={() => importFile.mutate({ text: importFile.variables.text, seen: newer })}
          onTheirs={() => {
            importFile.reset();
            void refetch();
          }}
        />
      )}
      {refused && (
        <Alert severity="error" sx={{ mb: 1 }}>
          {refused.problems.length
            ? refused.problems.slice(0, 12).map((p) => (
                <div key={p.path + p.message}>
                  {p.path}: {p.message}
                </div>
              ))
            : refused.message}
        </Alert>
      )}
      {importFile.data && !refused && (
        <Alert severity="success" sx={{ mb: 1 }}>
          {t('{extensions, plural, one {# extension} other {# extensions}} taken from the file.', {
            extensions: importFile.data.extensions,
          })}
        </Alert>
      )}
      {shown.length === 0 ? (
        <EmptyState title={t('No extension matches')}>
          {t('Try a country, a kind of work, or fewer letters.')}
        </EmptyState>
      ) : (
        <Box sx={{ overflowX: 'auto' }}>
          <Box
            component="table"
            sx={{
              width: 1,
              borderCollapse: 'collapse',
              '& tr > :nth-of-type(3), & tr > :nth-of-type(6)': { display: { xs: 'none', md: 'table-cell' } },
              '& td, & th': {
                textAlign: 'left',
                py: 0.7,
                pr: 2,
                borderBottom: 1,
                borderColor: 'divider',
                verticalAlign: 'top',
              },
            }}>
            <thead>
              <tr>
                <th>{t('Extension')}</th>
                <th>{t('Used for')}</th>
                <th>{t('Kind')}</th>
                <th>{t('Who may register')}</th>
                <th>{t('Year, about')}</th>
                <th>{t('Looked up')}</th>
                {data.may_edit && <th>{t('Change')}</th>}
              </tr>
            </thead>
            <tbody>
              {shown.map((e) => (
                <tr key={e.extension}>
                  <Box component="td" className="serif" sx={{ fontSize: '1.05rem' }}>
                    .{e.extension}
                  </Box>
                  <td>{e.use}</td>
                  <td>
                    {e.kind}
                    {e.country && `, ${countries.get(e.country) ?? e.country}`}
                  </td>
                  <td>{e.rule}</td>
                  <Box component="td" sx={{ whiteSpace: 'nowrap' }}>
                    {formatMoney(e.yearly, 'EUR')}
                  </Box>
                  <td>
                    {e.rdap || e.whois ? (
                      <details>
                        <summary>{e.rdap ? t('by RDAP') : t('by WHOIS')}</summary>
                        {e.rdap ? new URL(e.rdap).host : e.whois}
                      </details>
                    ) : (
                      t('no open look-up known')
                    )}
                  </td>
                  {data.may_edit && (
                    <td>
                      <Button
                        size="small"
                        aria-label={t('Change .{extension}', { extension: e.extension })}
                        onClick={() => setEditing(e)}>
                        {t('Change')}
                      </Button>
                    </td>
                  )}
                </tr>
              ))}
            </tbody>
          </Box>
        </Box>
      )}
      {editing && <ExtensionDialog entry={editing} about={data} onClose={() => setEditing(null)} />}
    </Box>
  );
}
