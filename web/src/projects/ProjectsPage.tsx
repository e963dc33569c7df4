/** The projects: a card each, and the ways to begin one. */
import { Box, Button, Flex, Heading, Input, Skeleton, Text } from '@chakra-ui/react';
import { readDocument, Refused } from '@yard-arch/document';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { FileUp, LogOut, Plus } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { api, type ProjectSummary } from '../state/api.ts';
import { Dialog } from '../common/Dialog.tsx';
import { Mark } from '../common/Mark.tsx';
import { complain, notify } from '../common/notices.tsx';
import { NewProject } from './NewProject.tsx';
import { ProjectCard } from './ProjectCard.tsx';

export function ProjectsPage() {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const projects = useQuery({
    queryKey: ['projects'],
    queryFn: api.list,
    refetchInterval: (query) => (query.state.error ? 3000 : false),
  });
  const [naming, setNaming] = useState<{ project: ProjectSummary; name: string } | null>(null);
  const [making, setMaking] = useState(false);
  const file = useRef<HTMLInputElement>(null);
  useEffect(() => {
    document.title = 'Projects · Yard Arch';
  }, []);

  const refresh = () => queries.invalidateQueries({ queryKey: ['projects'] });
  const failed = (title: string) => (error: Error) => complain(title, error.message);
  const name = useMutation({
    mutationFn: ({ project, name: text }: { project: ProjectSummary; name: string }) => api.rename(project.id, text),
    onSuccess: async () => {
      setNaming(null);
      await refresh();
    },
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
  const upload = async (chosen: File) => {
    try {
      // A file with pictures is a ZIP, and begins as those do.
      const zip = (await chosen.slice(0, 2).text()) === 'PK';
      const project = zip ? await api.uploadZip(chosen) : await api.upload(readDocument(await chosen.text()));
      await refresh();
      notify(`Opened “${project.name}” from ${chosen.name}`);
    } catch (error) {
      complain(
        `${chosen.name} was not taken in`,
        error instanceof Refused && error.faults.length > 0
          ? `${error.faults
              .slice(0, 4)
              .map((fault) => `${fault.path || 'The file'} ${fault.reason}`)
              .join('. ')}.${error.faults.length > 4 ? ` There are ${error.faults.length - 4} more faults.` : ''}`
          : (error as Error).message,
      );
    }
  };

  return (
    <Box
      minH="100%"
      onDragOver={(event) => event.preventDefault()}
      onDrop={(event) => {
        event.preventDefault();
        const dropped = event.dataTransfer.files[0];
        if (dropped) void upload(dropped);
      }}
    >
      <Flex as="header" align="center" gap="3" px="8" h="60px" bg="paper" borderBottomWidth="1px">
        <Mark size={28} />
        <Heading as="h1" fontFamily="heading" fontSize="20px" fontWeight="600">
          Yard Arch
        </Heading>
        <Text color="ink2" hideBelow="md">
          Openings in walls, set out on a drawing
        </Text>
        <Box flex="1" />
        <Button variant="outline" bg="paper" size="sm" onClick={() => file.current?.click()}>
          <FileUp size={16} /> Open a file…
        </Button>
        <Button bg="ink" color="white" size="sm" onClick={() => setMaking(true)}>
          <Plus size={16} /> New project
        </Button>
        {document.cookie.includes('yard-arch-signed-in=yes') && (
          <form method="post" action="/sign-out">
            <Button type="submit" variant="ghost" size="sm">
              <LogOut size={16} /> Sign out
            </Button>
          </form>
        )}
        <input
          ref={file}
          type="file"
          accept=".json,.zip,application/json,application/zip"
          hidden
          data-testid="file"
          onChange={(event) => {
            const chosen = event.target.files?.[0];
            event.target.value = '';
            if (chosen) void upload(chosen);
          }}
        />
      </Flex>

      <Box as="main" maxW="1160px" mx="auto" px="8" py="8">
        {projects.isPending ? (
          <Flex gap="6">
            {[0, 1, 2].map((i) => (
              <Skeleton key={i} w="340px" h="290px" />
            ))}
          </Flex>
        ) : projects.error && !projects.data ? (
          <Notice
            title={(projects.error as { title?: string }).title ?? 'The projects cannot be read'}
            text={projects.error.message}
          >
            <Button variant="outline" onClick={() => void projects.refetch()}>
              Try again
            </Button>
          </Notice>
        ) : projects.data?.length === 0 ? (
          <Notice
            title="No projects yet"
            text="Begin one with a first wall, look at an example, or open a project file. A file can also be dropped anywhere on this page."
          >
            <Button bg="ink" color="white" onClick={() => setMaking(true)}>
              <Plus size={16} /> New project
            </Button>
          </Notice>
        ) : (
          <Box display="grid" gridTemplateColumns="repeat(auto-fill, minmax(320px, 1fr))" gap="6">
            {projects.data?.map((project) => (
              <ProjectCard
                key={project.id}
                project={project}
                onRename={() => setNaming({ project, name: project.name })}
                onDuplicate={() => duplicate.mutate(project)}
                onDelete={() => remove.mutate(project)}
              />
            ))}
          </Box>
        )}
      </Box>

      <NewProject
        open={making}
        onClose={() => setMaking(false)}
        onMade={async (project) => {
          setMaking(false);
          await refresh();
          await navigate(`/projects/${project.id}`);
        }}
      />
      <Dialog
        open={naming !== null}
        title="Rename project"
        confirm="Rename"
        busy={name.isPending}
        error={name.error?.message ?? null}
        onClose={() => {
          setNaming(null);
          name.reset();
        }}
        onConfirm={() => naming && name.mutate(naming)}
      >
        <label>
          <Text fontFamily="label" color="ink2" mb="1">
            Name
          </Text>
          <Input
            autoFocus
            value={naming?.name ?? ''}
            maxLength={120}
            placeholder="Fennel Quay Granary"
            onFocus={(event) => event.target.select()}
            onChange={(event) => setNaming((before) => before && { ...before, name: event.target.value })}
          />
        </label>
      </Dialog>
    </Box>
  );
}

function Notice({ title, text, children }: { title: string; text: string; children: React.ReactNode }) {
  return (
    <Box mt="12" mx="auto" maxW="480px" textAlign="center" bg="paper" borderWidth="1px" p="10">
      <Mark size={44} />
      <Heading as="h2" fontFamily="heading" fontSize="20px" mt="4">
        {title}
      </Heading>
      <Text color="ink2" mt="2" mb="5">
        {text}
      </Text>
      {children}
    </Box>
  );
}
