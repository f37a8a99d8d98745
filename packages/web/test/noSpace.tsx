// What draws in 3D, on a page that has no graphics: a picture is there, nothing is in it.
export const Canvas = () => <canvas aria-hidden />;
export const OrbitControls = (): null => null;
export const OrthographicCamera = (): null => null;
const never = (): never => {
  throw new Error('Nothing is drawn in space here.');
};
export { never as extend, never as useFrame, never as useThree };
