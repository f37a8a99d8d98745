// Libraries as they ship, not as they are for finding faults in components.
process.env.NODE_ENV = 'production';
