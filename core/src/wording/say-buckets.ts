import { bucketsOf } from '../record';
import { formatNumber } from '../units';

/** *3 buckets*, *half a bucket*, *2.5 buckets*. */
export function sayBucketCount(count: number): string {
  if (count === 0.5) return 'half a bucket';
  return `${formatNumber(count, count % 1 === 0 ? 0 : 1)} ${count === 1 ? 'bucket' : 'buckets'}`;
}

/** A dose as it is carried: *3 buckets of 10 L*. */
export const sayBuckets = (litres: number, bucketL: number): string =>
  `${sayBucketCount(bucketsOf(litres, bucketL))} of ${formatNumber(bucketL, 0)} L`;
