import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';

import { api, changed, type Contacts, type Holder, keys, unwrap } from '../api';
import { t } from '../texts';
import { useNotify } from '../ui/Notices';

export interface SetPart {
  name?: string;
  usual?: boolean;
  registrant?: number;
  admin?: number | null;
  tech?: number | null;
  billing?: number | null;
}

/** Whom names are for. */
export const useContacts = () => useQuery({ queryKey: keys.contacts, queryFn: () => unwrap(api.GET('/api/contacts')) });

/** What the form of a contact is made of: countries with their rules, and numbers registries ask for. */
export const useContactForm = () =>
  useQuery({
    queryKey: keys.contactForm,
    queryFn: () => unwrap(api.GET('/api/contacts/form')),
    staleTime: Infinity,
  });

/** Keeping somebody, and the sets of those who hold a name and are asked about it. */
export function useContactActs() {
  const client = useQueryClient();
  const notify = useNotify();
  const onSuccess = (found: Contacts) => {
    client.setQueryData(keys.contacts, found);
    return client.invalidateQueries({ queryKey: keys.allBasket });
  };
  const onError = (error: Error) => {
    notify(error.message);
  };
  return {
    save: useMutation({
      mutationFn: ({ id, holder }: { id: number | null; holder: Holder }) =>
        id === null
          ? unwrap(api.POST('/api/contacts', { body: holder }))
          : unwrap(api.PUT('/api/contacts/{contact_id}', { params: { path: { contact_id: id } }, body: holder })),
      onSuccess,
    }),
    drop: useMutation({
      mutationFn: (id: number) =>
        unwrap(api.DELETE('/api/contacts/{contact_id}', { params: { path: { contact_id: id } } })),
      onSuccess: (found) => {
        notify(t('Deleted. What sellers know of names registered before stays with them.'));
        return onSuccess(found);
      },
      onError,
    }),
    saveSet: useMutation({
      mutationFn: ({ id, part }: { id: number | null; part: SetPart }) =>
        id === null
          ? unwrap(api.POST('/api/contact-sets', { body: part }))
          : unwrap(api.PATCH('/api/contact-sets/{set_id}', { params: { path: { set_id: id } }, body: part })),
      onSuccess,
    }),
    dropSet: useMutation({
      mutationFn: (id: number) =>
        unwrap(api.DELETE('/api/contact-sets/{set_id}', { params: { path: { set_id: id } } })),
      onSuccess,
      onError,
    }),
    again: () => changed.contacts(client),
  };
}
