import Button from '@mui/material/Button';
import { Component, type ErrorInfo, type ReactNode } from 'react';

import { EmptyState } from '../shared/ui/EmptyState';
import { t } from '../shared/texts';

interface Props {
  /** Where one is; somewhere else it is tried anew. */
  at: string;
  children: ReactNode;
}

/** A part of the program that could not be fetched: it was replaced on the server, or the line broke. */
const isMissingPart = (error: Error): boolean =>
  /dynamically imported module|Importing a module script|module script failed|ChunkLoadError|Failed to fetch/i.test(
    `${error.name} ${error.message}`,
  );

/** Keeps the bar when a page fails, and offers to load it again. */
export class Mishap extends Component<Props, { error: Error | null }> {
  override state = { error: null as Error | null };

  static getDerivedStateFromError(error: unknown): { error: Error } {
    return { error: error instanceof Error ? error : new Error(String(error)) };
  }

  override componentDidUpdate(before: Props): void {
    if (this.state.error && before.at !== this.props.at) this.setState({ error: null });
  }

  override componentDidCatch(error: Error, info: ErrorInfo): void {
    console.error(error, info.componentStack);
  }

  override render(): ReactNode {
    const { error } = this.state;
    if (!error) return this.props.children;
    const again = (
      <Button variant="contained" onClick={() => window.location.reload()}>
        {t('Load the page again')}
      </Button>
    );
    return isMissingPart(error) ? (
      <EmptyState alert title={t('A part of this page did not come')} action={again}>
        {t('Vine Tag was renewed on the server, or the line broke. What you did is kept.')}
      </EmptyState>
    ) : (
      <EmptyState alert title={t('This page failed')} action={again}>
        {t('That is our fault, and what you did is kept. Load the page again, or go somewhere else by the bar above.')}
      </EmptyState>
    );
  }
}
