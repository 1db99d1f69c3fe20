import { type ReactNode, use } from 'react';
import { useParams } from 'react-router';

import { ProjectContext } from '../shared/lib/projectContext';
import { useTitle } from '../shared/lib/useTitle';

/** A page with its title; that of a name begins with the name, that of a project's page ends with the project. */
export function Titled({ word, children }: { word?: string; children: ReactNode }) {
  const { label } = useParams();
  useTitle(word ?? label, use(ProjectContext)?.name);
  return children;
}
