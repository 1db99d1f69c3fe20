import Autocomplete from '@mui/material/Autocomplete';
import Chip from '@mui/material/Chip';
import TextField from '@mui/material/TextField';
import type { ReactNode } from 'react';

interface Props {
  label: string;
  value: readonly string[];
  onChange: (value: string[]) => void;
  options?: readonly string[];
  /** How a value is shown: with its dot, for extensions. */
  show?: (value: string) => string;
  error?: string | undefined;
  help?: ReactNode;
  /** The places in `value` that have a problem. */
  marked?: ReadonlySet<number>;
}

const split = (typed: string) =>
  typed
    .split(/[,;\n]/)
    .map((t) => t.trim())
    .filter(Boolean);

/** A list of short texts, each a chip; typed ones end with Enter or a comma. */
export function ChipsField({ label, value, onChange, options = [], show = (v) => v, error, help, marked }: Props) {
  const add = (typed: readonly string[]) => {
    const fresh = typed.flatMap(split).map((t) => t.toLowerCase().replace(/^\./, ''));
    onChange([...new Set(fresh)]);
  };
  return (
    <Autocomplete
      multiple
      freeSolo
      disableClearable
      filterSelectedOptions
      size="small"
      options={options}
      value={[...value]}
      getOptionLabel={show}
      filterOptions={(all, state) => {
        const typed = state.inputValue.toLowerCase().replace(/^\./, '');
        return typed ? all.filter((o) => o.startsWith(typed)).slice(0, 12) : [];
      }}
      onChange={(_, next) => add(next)}
      onInputChange={(event, typed) => {
        if (/[,;]$/.test(typed)) {
          add([...value, typed]);
          (event.target as HTMLInputElement).value = '';
        }
      }}
      renderValue={(items, props) =>
        items.map((item, index) => {
          const { key, ...rest } = props({ index });
          return (
            <Chip
              key={key}
              {...rest}
              size="small"
              variant="outlined"
              label={show(item)}
              color={marked?.has(index) ? 'error' : 'default'}
            />
          );
        })
      }
      renderInput={(params) => (
        <TextField {...params} label={label} error={Boolean(error)} helperText={error ?? help} />
      )}
    />
  );
}
