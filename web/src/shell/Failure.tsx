/** What is shown where a project cannot be. */
import { Box, Button, Flex, Heading, Text } from '@chakra-ui/react';
import { Link } from 'react-router';
import { useEditor } from '../state/state.ts';
import { bringBack, letGo, openProject } from '../state/store.ts';

export function Failure({ project }: { project: string }) {
  const failure = useEditor((state) => state.failure);
  if (!failure) return null;
  const { title, detail, passing, deleted, kept } = failure;
  return (
    <Box pt="18vh">
      <Box maxW="520px" mx="auto" p="8" bg="paper" borderWidth="1px">
        <Heading as="h1" fontFamily="heading" fontSize="21px">
          {title}
        </Heading>
        <Text mt="2" color="ink2">
          {detail}
        </Text>
        {kept > 0 && (
          <Text mt="3">
            This browser keeps {kept === 1 ? 'an edit' : `${kept} edits`} of it that {kept === 1 ? 'was' : 'were'} never
            saved. {kept === 1 ? 'It stays' : 'They stay'} until the project is back, or you let go of{' '}
            {kept === 1 ? 'it' : 'them'}.
          </Text>
        )}
        <Flex gap="3" mt="5" wrap="wrap">
          {passing && (
            <Button bg="ink" color="white" onClick={() => void openProject(project)}>
              Try again
            </Button>
          )}
          {deleted && (
            <Button bg="ink" color="white" onClick={() => void bringBack(project)}>
              Bring it back
            </Button>
          )}
          <Button variant="outline" asChild>
            <Link to="/">All projects</Link>
          </Button>
          {deleted && kept > 0 && (
            <Button variant="outline" color="brick" onClick={() => void letGo(project)}>
              Let go of {kept === 1 ? 'the edit' : 'the edits'}
            </Button>
          )}
        </Flex>
      </Box>
    </Box>
  );
}
