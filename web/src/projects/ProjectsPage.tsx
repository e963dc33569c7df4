/** The projects: a card each, and the ways to begin one. */
import { Box, Button, Flex, Heading, Input, Skeleton, Text } from '@chakra-ui/react';
import { FileUp, Plus } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import type { ProjectSummary } from '../state/api.ts';
import { Dialog } from '../common/Dialog.tsx';
import { Mark } from '../common/Mark.tsx';
import { NewProject } from './NewProject.tsx';
import { ProjectCard } from './ProjectCard.tsx';
import { SignOut } from './SignOut.tsx';
import { useProjects } from './use-projects.ts';

type Deeds = ReturnType<typeof useProjects>;

export function ProjectsPage() {
  const deeds = useProjects();
  const navigate = useNavigate();
  const [naming, setNaming] = useState<ProjectSummary | null>(null);
  const [making, setMaking] = useState(false);
  useEffect(() => {
    document.title = 'Projects · Yard Arch';
  }, []);
  return (
    <Box
      minH="100%"
      onDragOver={(event) => event.preventDefault()}
      onDrop={(event) => {
        event.preventDefault();
        const dropped = event.dataTransfer.files[0];
        if (dropped) void deeds.upload(dropped);
      }}
    >
      <Head onNew={() => setMaking(true)} onFile={deeds.upload} />
      <ProjectList deeds={deeds} onNew={() => setMaking(true)} onRename={setNaming} />
      <NewProject
        open={making}
        onClose={() => setMaking(false)}
        onMade={async (project) => {
          setMaking(false);
          await deeds.refresh();
          await navigate(`/projects/${project.id}`);
        }}
      />
      <Rename project={naming} rename={deeds.rename} onClose={() => setNaming(null)} />
    </Box>
  );
}

interface HeadProps {
  onNew: () => void;
  onFile: (chosen: File) => Promise<void>;
}

function Head({ onNew, onFile }: HeadProps) {
  const file = useRef<HTMLInputElement>(null);
  return (
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
      <Button bg="ink" color="white" size="sm" onClick={onNew}>
        <Plus size={16} /> New project
      </Button>
      {document.cookie.includes('yard-arch-signed-in=yes') && <SignOut />}
      <input
        ref={file}
        type="file"
        accept=".json,.zip,application/json,application/zip"
        hidden
        data-testid="file"
        onChange={(event) => {
          const chosen = event.target.files?.[0];
          event.target.value = '';
          if (chosen) void onFile(chosen);
        }}
      />
    </Flex>
  );
}

interface ListProps {
  deeds: Deeds;
  onNew: () => void;
  onRename: (project: ProjectSummary) => void;
}

function ProjectList({ deeds: { projects, duplicate, remove }, onNew, onRename }: ListProps) {
  return (
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
          <Button bg="ink" color="white" onClick={onNew}>
            <Plus size={16} /> New project
          </Button>
        </Notice>
      ) : (
        <Box display="grid" gridTemplateColumns="repeat(auto-fill, minmax(320px, 1fr))" gap="6">
          {projects.data?.map((project) => (
            <ProjectCard
              key={project.id}
              project={project}
              onRename={() => onRename(project)}
              onDuplicate={() => duplicate.mutate(project)}
              onDelete={() => remove.mutate(project)}
            />
          ))}
        </Box>
      )}
    </Box>
  );
}

interface RenameProps {
  /** The project that is renamed; null while none is. */
  project: ProjectSummary | null;
  rename: Deeds['rename'];
  onClose: () => void;
}

function Rename({ project, rename, onClose }: RenameProps) {
  const [name, setName] = useState('');
  useEffect(() => {
    if (project) setName(project.name);
  }, [project]);
  const close = (): void => {
    rename.reset();
    onClose();
  };
  return (
    <Dialog
      open={project !== null}
      title="Rename project"
      confirm="Rename"
      busy={rename.isPending}
      error={rename.error?.message ?? null}
      onClose={close}
      onConfirm={() => project && rename.mutate({ project, name }, { onSuccess: close })}
    >
      <label>
        <Text fontFamily="label" color="ink2" mb="1">
          Name
        </Text>
        <Input
          autoFocus
          value={name}
          maxLength={120}
          placeholder="Fennel Quay Granary"
          onFocus={(event) => event.target.select()}
          onChange={(event) => setName(event.target.value)}
        />
      </label>
    </Dialog>
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
