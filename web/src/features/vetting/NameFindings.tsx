import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { lazy, Suspense, useEffect, useRef } from 'react';
import { Link } from 'react-router';

import { asApiError, type KindFindings, type VettedName } from '../../shared/api';
import { concepts } from '../../shared/lib/concepts';
import { formatMoney } from '../../shared/lib/format';
import { t } from '../../shared/texts';
import { Age } from '../../shared/ui/Age';
import { LoadFailed } from '../../shared/ui/LoadFailed';
import { WeightMark } from '../../shared/ui/WeightMark';
import { Acceptance } from './Acceptance';
import { EvidenceTable } from './EvidenceTable';
import type { CurvePoint } from './HeldCurve';
import { SaidAndSeen } from './SaidAndSeen';
import { useVettedName, type useVettingActs } from './useVetting';

const HeldCurve = lazy(async () => ({ default: (await import('./HeldCurve')).HeldCurve }));

/** What to hold: the curve of what each euro catches, and the way into the plan. */
function Held({ projectId, kind }: { projectId: number; kind: KindFindings }) {
  const held = Array.isArray(kind.more.held) ? kind.more.held.map(String) : [];
  const points = Array.isArray(kind.more.curve) ? (kind.more.curve as CurvePoint[]) : [];
  const currency = typeof kind.more.currency === 'string' ? kind.more.currency : 'EUR';
  const budget = typeof kind.more.budget === 'number' ? kind.more.budget / 1000 : 0;
  if (points.length < 2) return null;
  return (
    <Box sx={{ maxWidth: 620 }}>
      <Typography variant="body2" color="textSecondary" sx={{ mb: 0.5 }}>
        {kind.more.budget_is_own === true
          ? t('Within the {budget} a year your brief allows.', { budget: formatMoney(budget, currency) })
          : t('Within {budget} a year, as your brief has no budget in this currency.', {
              budget: formatMoney(budget, currency),
            })}
      </Typography>
      {held.length > 0 && (
        <Button
          component={Link}
          to={`/projects/${projectId}/plan?also=${encodeURIComponent(held.join(','))}`}
          variant="outlined"
          size="small"
          sx={{ mb: 1 }}>
          {t('Into the plan with {n, plural, one {this name} other {these # names}}', { n: held.length })}
        </Button>
      )}
      <Suspense fallback={<LinearProgress aria-label={t('Loading')} />}>
        <HeldCurve points={points} currency={currency} />
      </Suspense>
    </Box>
  );
}

interface KindProps {
  projectId: number;
  name: VettedName;
  kind: KindFindings;
  acts: ReturnType<typeof useVettingActs>;
  running: boolean;
  others: readonly string[];
}

function Kind({ projectId, name, kind, acts, running, others }: KindProps) {
  const about = concepts().findings.find((k) => k.name === kind.kind);
  const word = about?.word ?? kind.kind;
  return (
    <Box
      component="section"
      id={`vetted-${kind.kind}`}
      aria-label={word}
      sx={{ borderTop: 1, borderColor: 'divider', py: 1.5, scrollMarginTop: 64 }}>
      <Stack direction="row" sx={{ gap: 1.5, alignItems: 'baseline', flexWrap: 'wrap' }}>
        <Typography variant="h3" component="h3">
          {word}
        </Typography>
        <WeightMark weight={kind.weight} accepted={kind.accepted} />
        <Typography variant="caption" color="textSecondary" sx={{ flex: 1 }}>
          {about?.asks}
        </Typography>
        <Typography variant="caption" color="textSecondary">
          <Age at={kind.found_at} />
          {kind.old && `, ${t('old')}`}
        </Typography>
        <Button
          size="small"
          disabled={running || acts.start.isPending}
          aria-label={t('Vet again: {word}', { word })}
          onClick={() => acts.start.mutate({ names: [name.full_name], kinds: [kind.kind], again: 'all' })}>
          {t('Again')}
        </Button>
      </Stack>
      {kind.findings.map((finding, i) => (
        <Box key={`${finding.code}${i}`} sx={{ mt: 0.8 }}>
          <Stack direction="row" sx={{ gap: 1, alignItems: 'baseline' }}>
            {kind.findings.length > 1 && <WeightMark weight={finding.weight} wordless />}
            <Typography sx={{ overflowWrap: 'anywhere' }}>{finding.text}</Typography>
          </Stack>
          {finding.advice && finding.advice !== kind.findings[i - 1]?.advice && (
            <Typography variant="body2" color="textSecondary">
              {finding.advice}
            </Typography>
          )}
        </Box>
      ))}
      <Acceptance
        key={`${kind.accepted}${kind.note}`}
        kind={kind}
        word={word}
        pending={acts.accept.isPending}
        fault={acts.accept.variables?.kind === kind.kind ? asApiError(acts.accept.error)?.message : undefined}
        onAccept={(accepted, note) =>
          acts.accept.mutate({ label: name.label, kind: kind.kind, accepted, note, sign: kind.sign })
        }
      />
      {kind.kind === 'said' && <SaidAndSeen met={name.presented} shown={name.shown} others={others} />}
      {kind.kind === 'protection' && <Held projectId={projectId} kind={kind} />}
      {kind.findings.map((finding, i) => (
        <Box key={i} sx={{ mt: 0.8 }}>
          <EvidenceTable kind={kind.kind} word={word} rows={finding.evidence} />
        </Box>
      ))}
    </Box>
  );
}

interface Props {
  projectId: number;
  /** A label, or a full name. */
  name: string;
  /** The kind to be brought into sight. */
  at: string | null;
  /** Somebody asked for this name: it is brought into sight. */
  sought: boolean;
  acts: ReturnType<typeof useVettingActs>;
  running: boolean;
  others: readonly string[];
}

/** All that was found of a name, with what speaks for it. */
export function NameFindings({ projectId, name: asked, at, sought, acts, running, others }: Props) {
  const { data: name, error, refetch } = useVettedName(projectId, asked);
  const head = useRef<HTMLHeadingElement>(null);
  const there = name?.kinds.length;
  useEffect(() => {
    if (!there || !sought) return;
    const target = at ? document.getElementById(`vetted-${at}`) : head.current;
    target?.scrollIntoView({ block: 'start' });
  }, [at, asked, sought, there]);
  if (error) return <LoadFailed title={t('The findings could not be loaded')} error={error} onRetry={refetch} />;
  if (!name) return <LinearProgress aria-label={t('Loading')} />;
  const order = concepts().weights.map((w) => w.name);
  const kinds = name.kinds.toSorted((a, b) => order.indexOf(a.weight) - order.indexOf(b.weight));
  return (
    <Box component="section" aria-label={t('Findings for {name}', { name: name.full_name })} sx={{ mt: 3 }}>
      <Stack direction="row" sx={{ gap: 2, alignItems: 'baseline', flexWrap: 'wrap', mb: 1 }}>
        <Typography ref={head} variant="h2" className="serif" sx={{ overflowWrap: 'anywhere', scrollMarginTop: 64 }}>
          {name.full_name}
        </Typography>
        <Button component={Link} size="small" to={`/projects/${projectId}/names/${name.label}`}>
          {t('Everything about it')}
        </Button>
        {!kinds.length && (
          <Button
            variant="outlined"
            size="small"
            disabled={running || acts.start.isPending}
            onClick={() => acts.start.mutate({ names: [name.full_name] })}>
            {t('Vet this name')}
          </Button>
        )}
      </Stack>
      {!kinds.length && <Typography color="textSecondary">{t('Nothing has been found out about it yet.')}</Typography>}
      {kinds.map((kind) => (
        <Kind
          key={kind.kind}
          projectId={projectId}
          name={name}
          kind={kind}
          acts={acts}
          running={running}
          others={others.filter((other) => other !== name.shown)}
        />
      ))}
    </Box>
  );
}
