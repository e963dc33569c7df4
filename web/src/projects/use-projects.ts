/** The projects of the server, and what can be done with them from their page. */
import { readDocument, Refused } from '@yard-arch/document';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { complain, notify } from '../common/notices.tsx';
import { api, type ProjectSummary } from '../state/api.ts';

const failed = (title: string) => (error: Error) => complain(title, error.message);

export function useProjects() {
  const queries = useQueryClient();
  const projects = useQuery({
    queryKey: ['projects'],
    queryFn: api.list,
    refetchInterval: (query) => (query.state.error ? 3000 : false),
  });
  const refresh = () => queries.invalidateQueries({ queryKey: ['projects'] });
  const rename = useMutation({
    mutationFn: ({ project, name }: { project: ProjectSummary; name: string }) => api.rename(project.id, name),
    onSuccess: refresh,
  });
  const duplicate = useMutation({
    mutationFn: (project: ProjectSummary) => api.duplicate(project.id),
    onSuccess: async (copy) => {
      await refresh();
      notify(`Made “${copy.name}”`);
    },
    onError: failed('The project was not duplicated'),
  });
  const remove = useMutation({
    mutationFn: (project: ProjectSummary) => api.remove(project.id),
    onSuccess: async (_, project) => {
      await refresh();
      notify(`Deleted “${project.name}”`, {
        label: 'Undo',
        onClick: () => void api.restore(project.id).then(refresh, failed('The project was not brought back')),
      });
    },
    onError: failed('The project was not deleted'),
  });
  const upload = async (chosen: File): Promise<void> => {
    try {
      // A file with pictures is a ZIP, and begins as those do.
      const zip = (await chosen.slice(0, 2).text()) === 'PK';
      const project = zip ? await api.uploadZip(chosen) : await api.upload(readDocument(await chosen.text()));
      await refresh();
      notify(`Opened “${project.name}” from ${chosen.name}`);
    } catch (error) {
      complain(`${chosen.name} was not taken in`, whyNot(error as Error));
    }
  };
  return { projects, refresh, rename, duplicate, remove, upload };
}

/** Why a file was not taken in: its first faults, and how many more there are. */
function whyNot(error: Error): string {
  if (!(error instanceof Refused) || error.faults.length === 0) return error.message;
  const first = error.faults.slice(0, 4).map((fault) => `${fault.path || 'The file'} ${fault.reason}`);
  const more = error.faults.length - first.length;
  return `${first.join('. ')}.${more > 0 ? ` There are ${more} more faults.` : ''}`;
}
