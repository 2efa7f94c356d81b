import { plantedFaults } from './planted';

plantedFaults(0);
