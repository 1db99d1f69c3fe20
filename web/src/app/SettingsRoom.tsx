import { useVocabulary } from '../features/brief/useWords';
import { SettingsPage } from '../features/settings/SettingsPage';

/** The settings, with the extensions there are to choose from. */
export const SettingsRoom = () => <SettingsPage extensions={useVocabulary().data?.extensions ?? []} />;
