/** Header with the device's own time, as it sends: how far its clock is off corrects what it wrote on its records. */
export const deviceTimeHeader = 'x-device-time';
/** Header by which a browser says which device it is. */
export const deviceIdHeader = 'x-device-id';
/** Header with the token that a write of somebody's own page carries. */
export const csrfHeader = 'x-csrf-token';
