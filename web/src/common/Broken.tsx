/** What stands in place of a page that failed. */
import { Box, Button, Heading, Text } from '@chakra-ui/react';
import { useRouteError } from 'react-router';

export function Broken() {
  const error = useRouteError();
  return (
    <Box pt="20vh">
      <Box maxW="560px" mx="auto" p="6" bg="paper" borderWidth="1px">
        <Heading size="lg">This page has failed</Heading>
        <Text mt="2">
          Your project is safe: every edit up to the last one is saved, or kept in this browser. Loading the page again
          usually mends it.
        </Text>
        <Text mt="3" fontFamily="label" color="ink2">
          {error instanceof Error ? error.message : String(error)}
        </Text>
        <Button mt="4" bg="ink" color="white" onClick={() => window.location.reload()}>
          Load again
        </Button>
      </Box>
    </Box>
  );
}
