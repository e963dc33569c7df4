/** A new project: what it is called, and what it begins with, chosen by drawings; or an example. */
import { Input, Text } from '@chakra-ui/react';
import { zodResolver } from '@hookform/resolvers/zod';
import { useMutation, useQuery } from '@tanstack/react-query';
import { nameSchema } from '@yard-arch/document';
import type { Beginning } from '@yard-arch/edit';
import { useForm } from 'react-hook-form';
import { z } from 'zod';
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

interface Wish {
  name: string;
  begun: Begun;
}

/** An example brings its own name; anything else needs one. */
const wishSchema = z
  .object({ name: z.string().max(120, 'must have at most 120 characters'), begun: z.custom<Begun>() })
  .superRefine(({ name, begun }, context) => {
    if ('example' in begun && name.trim() === '') return;
    const checked = nameSchema.safeParse(name);
    for (const { message } of checked.error?.issues ?? [])
      context.addIssue({ code: 'custom', path: ['name'], message: `The name ${message}.` });
  });

const nothing: Wish = { name: '', begun: { begin: 'wall' } };

const same = (a: Begun, b: Begun): boolean => JSON.stringify(a) === JSON.stringify(b);

interface NewProjectProps {
  open: boolean;
  onClose: () => void;
  onMade: (project: ProjectSummary) => Promise<void>;
}

export function NewProject({ open, onClose, onMade }: NewProjectProps) {
  const form = useForm<Wish>({ defaultValues: nothing, resolver: zodResolver(wishSchema) });
  const begun = form.watch('begun');
  const examples = useQuery({ queryKey: ['examples'], queryFn: api.examples, enabled: open, staleTime: Infinity });
  const make = useMutation({
    mutationFn: ({ name, begun: from }: Wish) => api.create(name.trim() === '' ? undefined : name, from),
    onSuccess: async (project, { begun: from }) => {
      if ('begin' in from) beginSteps(project.id);
      form.reset(nothing);
      await onMade(project);
    },
  });
  const chosen = 'example' in begun ? examples.data?.find(({ id }) => id === begun.example) : undefined;
  const radio = (wish: Begun, title: string, about: string, drawing?: string) => (
    <Radio
      key={title}
      {...{ title, about, drawing }}
      chosen={same(begun, wish)}
      onChoose={() => form.setValue('begun', wish)}
    />
  );
  return (
    <Dialog
      open={open}
      title="New project"
      confirm="Make it"
      busy={make.isPending}
      error={form.formState.errors.name?.message ?? make.error?.message ?? null}
      onClose={() => {
        make.reset();
        form.clearErrors();
        onClose();
      }}
      onConfirm={() => void form.handleSubmit((wish) => make.mutate(wish))()}
    >
      <label>
        <Text fontFamily="label" color="ink2" mb="1">
          Name
        </Text>
        <Input
          autoFocus
          maxLength={120}
          placeholder={chosen?.name ?? 'Fennel Quay Granary'}
          aria-invalid={form.formState.errors.name !== undefined}
          {...form.register('name')}
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

interface RadioProps {
  title: string;
  about: string;
  drawing: string | undefined;
  chosen: boolean;
  onChoose: () => void;
}

/** One beginning, with its drawing. */
function Radio({ title, about, drawing, chosen, onChoose }: RadioProps) {
  return (
    <label className={`beginning${chosen ? ' chosen' : ''}`}>
      <input type="radio" name="begin" checked={chosen} onChange={onChoose} />
      {drawing && (
        <svg viewBox="0 0 64 44" width="64" height="44" aria-hidden="true">
          <path d={drawing} />
        </svg>
      )}
      <b>{title}</b>
      <span>{about}</span>
    </label>
  );
}
