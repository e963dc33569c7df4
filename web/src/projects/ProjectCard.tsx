/** One project as a card: its picture, its name, and what can be done with it. */
import { Box, Flex, Heading, IconButton, Image, Menu, Portal, Text } from '@chakra-ui/react';
import { Copy, Download, MoreVertical, Pencil, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { fileUrl, pictureUrl, type ProjectSummary } from '../state/api.ts';

const days = new Intl.RelativeTimeFormat('en', { numeric: 'auto' });

function ago(iso: string): string {
  const minutes = Math.round((Date.now() - Date.parse(iso)) / 60_000);
  if (minutes < 1) return 'just now';
  if (minutes < 60) return days.format(-minutes, 'minute');
  if (minutes < 60 * 24) return days.format(-Math.round(minutes / 60), 'hour');
  return days.format(-Math.round(minutes / 60 / 24), 'day');
}

const many = (n: number, one: string, more: string): string => `${n} ${n === 1 ? one : more}`;

/** The picture of its model; where there can be none, why. */
function CardPicture({ project }: { project: ProjectSummary }) {
  const [why, setWhy] = useState<string | null>(null);
  const url = pictureUrl(project);
  const ask = async (): Promise<void> => {
    const problem = (await (await fetch(url)).json().catch(() => ({}))) as { title?: string; detail?: string };
    setWhy(problem.title ? `${problem.title}. ${problem.detail ?? ''}` : 'The server did not say why.');
  };
  if (why === null)
    return (
      <Image
        src={url}
        alt=""
        w="100%"
        aspectRatio="8 / 5"
        objectFit="cover"
        bg="chalk"
        borderBottomWidth="1px"
        onError={() => void ask().catch(() => setWhy('The server does not answer.'))}
      />
    );
  return (
    <Flex
      direction="column"
      justify="center"
      align="center"
      gap="1"
      px="8"
      w="100%"
      aspectRatio="8 / 5"
      bg="chalk"
      borderBottomWidth="1px"
      textAlign="center"
      color="ink2"
    >
      <Text fontWeight="600">No picture</Text>
      <Text fontSize="14px" lineClamp={4}>
        {why}
      </Text>
    </Flex>
  );
}

interface CardProps {
  project: ProjectSummary;
  onRename: () => void;
  onDuplicate: () => void;
  onDelete: () => void;
}

export function ProjectCard({ project, onRename, onDuplicate, onDelete }: CardProps) {
  const items = [
    { value: 'rename', label: 'Rename…', icon: <Pencil size={15} />, run: onRename },
    { value: 'duplicate', label: 'Duplicate', icon: <Copy size={15} />, run: onDuplicate },
    {
      value: 'download',
      label: 'Download project file',
      icon: <Download size={15} />,
      run: () => window.location.assign(fileUrl(project.id)),
    },
    { value: 'delete', label: 'Delete', icon: <Trash2 size={15} />, run: onDelete },
  ];
  return (
    <Box
      as="article"
      bg="paper"
      borderWidth="1px"
      borderRadius="lg"
      overflow="hidden"
      position="relative"
      _hover={{ borderColor: 'ink2' }}
    >
      <Link to={`/projects/${project.id}`} aria-label={`Open ${project.name}`} style={{ display: 'block' }}>
        <CardPicture project={project} />
        <Box px="4" py="3" pr="12">
          <Heading as="h2" fontFamily="heading" fontSize="17px" fontWeight="600" lineClamp={2}>
            {project.name}
          </Heading>
          <Text color="ink2" fontFamily="label" fontSize="14px">
            {many(project.elements, 'element', 'elements')} · {many(project.openings, 'opening', 'openings')} · edited{' '}
            {ago(project.updatedAt)}
          </Text>
        </Box>
      </Link>
      <Flex position="absolute" right="2" bottom="4">
        <Menu.Root
          onSelect={({ value }) => items.find((item) => item.value === value)?.run()}
          positioning={{ placement: 'bottom-end' }}
        >
          <Menu.Trigger asChild>
            <IconButton variant="ghost" size="sm" aria-label={`More for ${project.name}`}>
              <MoreVertical size={18} />
            </IconButton>
          </Menu.Trigger>
          <Portal>
            <Menu.Positioner>
              <Menu.Content bg="paper" minW="200px">
                {items.map(({ value, label, icon }) => (
                  <Menu.Item key={value} value={value} color={value === 'delete' ? 'brick' : 'ink'}>
                    {icon} {label}
                  </Menu.Item>
                ))}
              </Menu.Content>
            </Menu.Positioner>
          </Portal>
        </Menu.Root>
      </Flex>
    </Box>
  );
}
