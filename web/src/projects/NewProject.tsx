/** A new project: what it is called, and what it begins with, chosen by drawings; or an example. */
import { Input, Text } from '@chakra-ui/react';
import { useMutation, useQuery } from '@tanstack/react-query';
import type { Beginning } from '@yard-arch/edit';
import { useState } from 'react';
import { Dialog } from '../common/Dialog.tsx';
import { beginSteps } from '../state/first-steps.ts';
import { api, type ProjectSummary } from '../state/api.ts';

type Begun = { begin: Beginning } | { example: string };

const beginnings: { begin: Beginning; name: string; about: string; drawing: string }[] = [
  {
    begin: 'wall',
    name: 'A first wall',
    about: 'and patterns to cut it with',
    drawing: 'M4 38V10h56v28M0 38h64M14 30V21h8v9zM28 38V24a6 6 0 0 1 12 0v14M46 30V21h8v9z',
  },
  {
    begin: 'patterns',
    name: 'Patterns',
    about: 'and materials; draw the walls yourself',
    drawing: 'M5 36V18h12v18zM25 36V20a7 7 0 0 1 14 0v16zM54 27m-8 0a8 8 0 1 0 16 0a8 8 0 1 0 -16 0',
  },
  { begin: 'empty', name: 'Nothing', about: 'an empty sheet', drawing: 'M8 8h48v30H8z' },
];

const same = (a: Begun, b: Begun): boolean => JSON.stringify(a) === JSON.stringify(b);

export function NewProject({
  open,
  onClose,
  onMade,
}: {
  open: boolean;
  onClose: () => void;
  onMade: (project: ProjectSummary) => Promise<void>;
}) {
  const [name, setName] = useState('');
  const [begun, setBegun] = useState<Begun>({ begin: 'wall' });
  const examples = useQuery({ queryKey: ['examples'], queryFn: api.examples, enabled: open, staleTime: Infinity });
  const make = useMutation({
    mutationFn: () => api.create(name.trim() === '' && 'example' in begun ? undefined : name, begun),
    onSuccess: async (project) => {
      if ('begin' in begun) beginSteps(project.id);
      setName('');
      await onMade(project);
    },
  });
  const chosen = 'example' in begun ? examples.data?.find(({ id }) => id === begun.example) : undefined;
  const radio = (wish: Begun, title: string, about: string, drawing?: string) => (
    <label key={title} className={`beginning${same(begun, wish) ? ' chosen' : ''}`}>
      <input type="radio" name="begin" checked={same(begun, wish)} onChange={() => setBegun(wish)} />
      {drawing && (
        <svg viewBox="0 0 64 44" width="64" height="44" aria-hidden="true">
          <path d={drawing} />
        </svg>
      )}
      <b>{title}</b>
      <span>{about}</span>
    </label>
  );
  return (
    <Dialog
      open={open}
      title="New project"
      confirm="Make it"
      busy={make.isPending}
      error={make.error?.message ?? null}
      onClose={() => {
        make.reset();
        onClose();
      }}
      onConfirm={() => make.mutate()}
    >
      <label>
        <Text fontFamily="label" color="ink2" mb="1">
          Name
        </Text>
        <Input
          autoFocus
          value={name}
          maxLength={120}
          placeholder={chosen?.name ?? 'Fennel Quay Granary'}
          onChange={(event) => setName(event.target.value)}
        />
      </label>
      <fieldset className="beginnings">
        <legend>Begin with</legend>
        {beginnings.map(({ begin, name: title, about, drawing }) => radio({ begin }, title, about, drawing))}
      </fieldset>
      {(examples.data?.length ?? 0) > 0 && (
        <fieldset className="beginnings examples">
          <legend>or look at an example</legend>
          {examples.data?.map(({ id, name: title, about }) => radio({ example: id }, title, about))}
        </fieldset>
      )}
    </Dialog>
  );
}
