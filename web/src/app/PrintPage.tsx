import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { Link, useSearchParams } from 'react-router';

import { useShortlist } from '../features/shortlist/useShortlist';
import { asApiError, type Brief, type Cell, type Judged, type Kept } from '../shared/api';
import { formatMoment, shareOf } from '../shared/lib/format';
import { isBuyable, measureOf } from '../shared/lib/concepts';
import { useOpenProject } from '../shared/lib/projectContext';
import { useNames } from '../shared/lib/useName';
import { EmptyState } from '../shared/ui/EmptyState';
import { fullName, withOwn } from '../shared/lib/fullName';
import { PAPER } from '../shared/ui/paper';
import { priceOf } from '../shared/ui/Price';
import { SeamedName } from '../shared/ui/SeamedName';
import { shownStatus, statusWord } from '../shared/ui/status';
import { t } from '../shared/texts';

const word = (cell: Cell | undefined): string =>
  `${statusWord(shownStatus(cell), cell?.likely ?? false)}${cell?.asked_at ? ` (${formatMoment(cell.asked_at)})` : ''}`;

/** Where a kept name can be had, in the person's order, each with its age and price. */
function free(kept: Kept, extensions: readonly string[], owner: Brief['owner']) {
  const cells = withOwn(extensions, kept.extension)
    .map((e) => kept.statuses.find((c) => c.extension === e))
    .filter((c) => c !== undefined);
  const found = cells.filter((c) => isBuyable(c.status));
  if (!found.length) return cells.length ? t('nowhere asked') : t('not asked');
  return found.map((c) => (
    <div key={c.extension}>
      .{c.extension} {word(c)}
      {priceOf(c, owner) && `: ${priceOf(c, owner)}`}
    </div>
  ));
}

function OneName({ name, extensions, owner }: { name: Judged; extensions: readonly string[]; owner: Brief['owner'] }) {
  return (
    <>
      <Typography variant="h1" sx={{ fontSize: '2.6rem' }}>
        <SeamedName
          label={name.label}
          shown={name.shown}
          starts={name.parts.map((p) => p.start)}
          extension={name.extension}
        />
      </Typography>
      <Typography sx={{ mb: 2 }}>
        {name.grade === null ? t('Grade not given') : t('Grade {grade, number}', { grade: Math.round(name.grade) })}
        {name.place && ` · ${t('number {place} on the shortlist', { place: name.place })}`}
      </Typography>
      <table>
        <tbody>
          {name.measures.map((m) => (
            <tr key={m.name}>
              <Box component="th" scope="row" sx={{ whiteSpace: 'nowrap' }}>
                {measureOf(m.name)?.word ?? m.name}
              </Box>
              <Box component="td" sx={{ whiteSpace: 'nowrap' }}>
                {m.score === null ? '–' : Math.round(m.score)}
              </Box>
              <td>{m.reasons.map((r) => r.text).join(' ')}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {name.warnings.length > 0 && (
        <Typography sx={{ mt: 2 }}>
          {t('To know: {warnings}', { warnings: name.warnings.map((w) => w.text).join(' ') })}
        </Typography>
      )}
      {name.misspellings.length > 0 && (
        <Typography sx={{ mt: 1 }}>
          {t('Likely misspellings: {misspellings}', {
            misspellings: name.misspellings
              .slice(0, 5)
              .map((m) => `${m.label} (${shareOf(m.share)})`)
              .join(', '),
          })}
        </Typography>
      )}
      <Typography variant="h3" component="h2" sx={{ mt: 2 }}>
        {t('Where it is open')}
      </Typography>
      <table>
        <tbody>
          {withOwn(extensions, name.extension).map((e) => (
            <tr key={e}>
              <th scope="row">.{e}</th>
              <td>{word(name.cells.find((c) => c.extension === e))}</td>
              <td>
                {priceOf(
                  name.cells.find((c) => c.extension === e),
                  owner,
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {name.note && (
        <>
          <Typography variant="h3" component="h2" sx={{ mt: 2 }}>
            {t('Note')}
          </Typography>
          <Typography sx={{ whiteSpace: 'pre-wrap' }}>{name.note}</Typography>
        </>
      )}
      {name.tags.length > 0 && (
        <Typography sx={{ mt: 1 }}>{t('Tags: {tags}', { tags: name.tags.join(', ') })}</Typography>
      )}
    </>
  );
}

/** A page made for paper: the shortlist, or one name. */
export function PrintPage() {
  const project = useOpenProject();
  const [params] = useSearchParams();
  const label = params.get('name');
  const { list } = useShortlist(project.id);
  const [one] = useNames(project.id, label ? [label] : []);
  const { extensions } = project.brief;
  const failed = asApiError(list.error ?? one?.error);
  if (failed)
    return (
      <EmptyState alert title={t('The page could not be made')}>
        {failed.message}
      </EmptyState>
    );
  if (!list.data || (label && !one?.data)) return <LinearProgress aria-label={t('Loading')} />;
  return (
    <Box component="main" sx={{ py: 2, '@media print': { py: 0 } }}>
      <Stack direction="row" sx={{ gap: 1, justifyContent: 'center', mb: 2, '@media print': { display: 'none' } }}>
        <Button variant="contained" onClick={() => window.print()}>
          {t('Print')}
        </Button>
        <Button
          component={Link}
          to={label ? `/projects/${project.id}/names/${label}` : `/projects/${project.id}/shortlist`}
          variant="outlined">
          {t('Back')}
        </Button>
      </Stack>
      <Box className="paper" sx={PAPER}>
        {one?.data ? (
          <OneName name={one.data} extensions={extensions} owner={project.brief.owner} />
        ) : (
          <>
            <Typography variant="h1">{project.name}</Typography>
            <Typography sx={{ mb: 2 }}>
              {t('Shortlist, {data, plural, one {# name} other {# names}}', { data: list.data.length })}
            </Typography>
            <table>
              <thead>
                <tr>
                  <th scope="col">{t('Place')}</th>
                  <th scope="col">{t('Name')}</th>
                  <th scope="col">{t('Grade')}</th>
                  <th scope="col">{t('Open in')}</th>
                  <th scope="col">{t('Note')}</th>
                </tr>
              </thead>
              <tbody>
                {list.data.map((k, i) => (
                  <tr key={k.label}>
                    <td>{i + 1}</td>
                    <td style={{ minWidth: '9em', overflowWrap: 'break-word' }}>
                      <span className="serif" style={{ fontSize: '1.15rem' }}>
                        {fullName(k)}
                      </span>
                      {k.tags.length > 0 && <div>{k.tags.join(', ')}</div>}
                    </td>
                    <td style={{ whiteSpace: 'nowrap' }}>{k.grade === null ? '–' : Math.round(k.grade)}</td>
                    <td>{free(k, extensions, project.brief.owner)}</td>
                    <td style={{ whiteSpace: 'pre-wrap' }}>{k.note}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </>
        )}
        <Typography variant="caption" component="p" sx={{ mt: 3, color: '#55434f' }}>
          {t('Made with Vine Tag, {moment}. Statuses are as old as is said beside them; ask again before paying.', {
            moment: formatMoment(new Date().toISOString()),
          })}
        </Typography>
      </Box>
    </Box>
  );
}
