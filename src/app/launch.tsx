export { LaunchScreen as default } from '@/ui/launch/LaunchScreen';
