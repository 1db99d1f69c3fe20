import { createContext, use } from 'react';

import type { Project } from '../api';

export const ProjectContext = createContext<Project | null>(null);

/** The project whose page this is. */
export function useOpenProject(): Project {
  const project = use(ProjectContext);
  if (!project) throw new Error('useOpenProject is for pages of a project');
  return project;
}
