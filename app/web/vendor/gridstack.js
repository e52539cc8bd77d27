export { GridStack } from 'gridstack';
