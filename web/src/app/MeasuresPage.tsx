import Box from '@mui/material/Box';
import MuiLink from '@mui/material/Link';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useEffect } from 'react';
import { Link, useLocation } from 'react-router';

import type { Example } from '../shared/api';
import { gradeOf, MEASURES, sharesOf } from '../shared/lib/grading';
import { useWeighing } from '../shared/lib/useWeighing';
import { Blank } from '../shared/ui/Blank';
import { Bar } from '../shared/ui/GradeFigure';
import { MarkedLetters } from '../shared/ui/MarkedLetters';

/** How each measure is worked out, in plain words. */
const HOW: Record<string, readonly string[]> = {
  length: [
    'Letters are counted without hyphens. Full marks go to 5 to 9 for a brand-like name, 5 to 10 for a mix and 6 to 14 for a descriptive one, because a brand is typed and said many times a day and a descriptive name is found rather than typed. Each letter beyond costs 7, 6 or 4.5 points.',
    'Beats (syllables), words and hyphens beyond the usual cost a little more, and so does a first extension of more than three letters.',
  ],
  spelling: [
    'The telephone test, computed: of 100 people who hear the name, how many write it as it is? Words are said by a pronouncing dictionary; words nobody listed, by a model that learned from it which letters stand for which sounds.',
    'Then the other way round. Who knows a word writes it, or a commoner one that sounds the same; who does not spells the sounds one by one, by how often English spells each so in that place. Letters doubled at a join, hyphens, digits and accents are not heard, and lose some more.',
  ],
  fit: [
    'What the name says of the brief: a keyword, whole, in another form, changed or by its sound; a word of your world; a meaning near your sentence. The best counts most, others add a little, and so does how near the whole name is to the sentence. Words for the kind of venture carry little unless you weigh them up.',
    'Closeness in meaning is measured between word vectors, less what every word has with its neighbours. Letters that belong neither to your words nor to your world cost a point each. A made-up name carries little, and that is what it gets.',
  ],
  sense: [
    'Does it mean something here, in natural English? What people of your world say, what goes together there and what one does there is known from its fields, and counts by how near it is to your sentence. For other names the nearness of all words together counts, whether they are put as people speak, and a rarer word that is known more than a common one.',
    'What spoils it: a phrase known as something else, a word that goes with anything, a keyword glued to a word it has no tie to, two words that say the same, an order nobody uses, a stub, and what works against what you promise. The points were weighed on marks of readers who did not know where a name came from.',
  ],
  sound: [
    'Known words count as easy to say. For new ones a model of which letters and sounds follow each other in English says how usual they are, and whether readers would say them in two ways.',
    'Then the joins: four consonants in a row, two vowels, or one sound twice. More than four beats are long; strong and weak beats that take turns are a gain.',
  ],
  memory: [
    'What research says: rhyme and alliteration help, things that can be pictured are recalled better, and fewer and shorter items are kept better. How many points each brings is our judgement.',
    'Two everyday words together are easily mixed up with others and lose some; a new word has to be learnt first.',
  ],
  clarity: [
    'An address has no spaces. All ways to cut the letters into words are weighed by how common the words are, and the score falls by the share of readers who would see another reading.',
    'Words nobody wants to read across a join, letters taken for others (rn and m, l and 1) and short forms few can guess cost more.',
  ],
};
const PURPOSES = [['brand', 'Brand-like'], ['mix', 'A mix'], ['descriptive', 'Descriptive']] as const;

function Worked({ example }: { example: Example }) {
  const { label, project, score, reasons } = example;
  return (
    <Box component="li" sx={{ borderTop: 1, borderColor: 'divider', py: 1, display: 'grid', gridTemplateColumns: '190px 1fr', gap: 2 }}>
      <Box>
        <Stack direction="row" sx={{ justifyContent: 'space-between', gap: 1 }}>
          <Box component="span" className="serif" sx={{ fontWeight: 600, overflowWrap: 'anywhere' }}>{label}</Box>
          <strong>{score === null ? '–' : Math.round(score)}</strong>
        </Stack>
        <Bar value={score ?? 0} width="100%" />
        <Typography variant="caption" color="textSecondary" component="div">for {project}</Typography>
      </Box>
      <Stack component="ul" sx={{ m: 0, p: 0, listStyle: 'none' }}>
        {reasons.map((reason) => <li key={reason.text}><MarkedLetters text={label} start={reason.start} end={reason.end} />{reason.text}</li>)}
      </Stack>
    </Box>
  );
}

/** How the grade and each measure are worked out, with examples that are worked out here and now. */
export function MeasuresPage() {
  const { data, error } = useWeighing();
  const { hash } = useLocation();
  useEffect(() => {
    if (data && hash) document.getElementById(hash.slice(1))?.scrollIntoView();
  }, [data, hash]);
  if (error && !data) return <Blank alert title="The examples could not be loaded">{error.message}</Blank>;
  const uneven = { one: 95, two: 95, three: 20 };
  const even = { one: 1, two: 1, three: 1 };
  return (
    <Box component="main" sx={{ maxWidth: 860, mx: 'auto', px: 3, py: 4, '& p': { mb: 1 } }}>
      <Typography variant="h1" sx={{ mb: 1 }}>How grades are worked out</Typography>
      <Stack component="nav" aria-label="Measures" direction="row" sx={{ gap: 2, mb: 1.5 }}>
        {MEASURES.map(({ name, word }) => <MuiLink key={name} component={Link} to={`#${name}`} color="secondary">{word}</MuiLink>)}
      </Stack>
      <Typography>Seven measures look at a name, each from 0 to 100 and each with its reasons. The grade weighs them: as the purpose of the brief has it, or as you set the sliders.</Typography>
      {data && (
        <>
          <Box component="table" sx={{ borderCollapse: 'collapse', my: 2, '& th, & td': { textAlign: 'right', px: 1.4, py: 0.4, borderBottom: 1, borderColor: 'divider' }, '& th:first-of-type': { textAlign: 'left', pl: 0 } }}>
            <caption><Typography variant="caption" color="textSecondary">Each measure’s share of the grade, by purpose</Typography></caption>
            <thead>
              <tr><th scope="col">Purpose</th>{MEASURES.map((m) => <th scope="col" key={m.name}>{m.word}</th>)}</tr>
            </thead>
            <tbody>
              {PURPOSES.map(([purpose, word]) => {
                const shares = sharesOf(data.presets[purpose] ?? {});
                return <tr key={purpose}><th scope="row">{word}</th>{MEASURES.map((m) => <td key={m.name}>{Math.round(100 * (shares[m.name] ?? 0))} %</td>)}</tr>;
              })}
            </tbody>
          </Box>
          <Typography>A weakness is not made good by strengths elsewhere: the mean leans to the low scores (a power mean with exponent {data.exponent}). Three measures that count alike with 95, 95 and 20 give {Math.round(gradeOf(uneven, { weights: even, exponent: data.exponent }))}, where the plain average would give {Math.round((95 + 95 + 20) / 3)}.</Typography>
        </>
      )}
      {MEASURES.map(({ name, word, asks }) => (
        <Box component="section" key={name} id={name} sx={{ mt: 3, scrollMarginTop: 12 }}>
          <Typography variant="h2">{word}</Typography>
          <Typography color="textSecondary">{asks}</Typography>
          {HOW[name]?.map((text) => <Typography key={text}>{text}</Typography>)}
          <Box component="ul" aria-label={`Examples of ${word.toLowerCase()}`} sx={{ m: 0, p: 0, listStyle: 'none' }}>
            {data?.examples[name]?.map((example) => <Worked key={example.label} example={example} />)}
          </Box>
        </Box>
      ))}
    </Box>
  );
}
