export { SetsScreen as default } from '@/ui/sets/SetsScreen';
