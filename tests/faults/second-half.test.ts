import { plantedFaults } from './planted';

plantedFaults(1);
