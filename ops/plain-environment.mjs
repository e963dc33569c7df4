/**
 * Where unit tests run: a context of their own whose global object is a plain one. Jest’s is asked through an interceptor for every
 * `Math` and `Float64Array`, which makes arithmetic three to seven times as slow.
 */
import vm from 'node:vm';
import { TestEnvironment } from 'jest-environment-node';

export default class PlainEnvironment extends TestEnvironment {
  constructor(config, context) {
    const { createContext } = vm;
    vm.createContext = () => createContext(vm.constants.DONT_CONTEXTIFY);
    try {
      super(config, context);
    } finally {
      vm.createContext = createContext;
    }
  }
}
