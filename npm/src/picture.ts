// Draws what `Ubbo.picture` gives on a canvas.
import type { Picture } from './ubbo';

const fonts = 'Inter, "DejaVu Sans", sans-serif';
const from_utf8 = new TextDecoder();
const colours = new Map<number, string>();

export function colour_of(number: number): string {
  let css = colours.get(number);
  if (css === undefined) {
    css = `#${(number >>> 0).toString(16).padStart(8, '0')}`;
    colours.set(number, css);
  }
  return css;
}

export type Images = (name: string) => CanvasImageSource | undefined;

// One layer for each depth of what is seen through: kept, since a new canvas each frame is dear.
const layers: CanvasRenderingContext2D[] = [];

function layer(depth: number, like: CanvasRenderingContext2D): CanvasRenderingContext2D {
  let made = layers[depth];
  if (made === undefined) {
    made = document.createElement('canvas').getContext('2d')!;
    layers[depth] = made;
  }
  const { width, height } = like.canvas;
  if (made.canvas.width !== width || made.canvas.height !== height) {
    made.canvas.width = width;
    made.canvas.height = height;
  } else {
    made.setTransform(1, 0, 0, 1, 0, 0);
    made.clearRect(0, 0, width, height);
  }
  made.setTransform(like.getTransform());
  return made;
}

interface Group {
  below: CanvasRenderingContext2D;
  opacity: number; // below 1: it is drawn on a layer of its own
}

/** Draws a picture, one of its units one of the canvas' present transform. */
export function draw(canvas: CanvasRenderingContext2D, picture: Picture, images: Images): void {
  const n = picture.numbers;
  const words = (begin: number, length: number): string =>
    from_utf8.decode(picture.texts.subarray(begin, begin + length));
  const open: Group[] = [];
  let c = canvas;
  let depth = 0;
  let at = 0;
  const ink = (fill: number, stroke: number, width: number, dash: number): void => {
    if (fill >= 0) {
      c.fillStyle = colour_of(fill);
      c.fill();
    }
    if (stroke >= 0 && width > 0) {
      c.strokeStyle = colour_of(stroke);
      c.lineWidth = width;
      c.setLineDash(dash > 0 ? [dash, dash] : []);
      c.stroke();
    }
  };
  canvas.lineJoin = 'round';
  while (at < n.length) {
    const what = n[at++];
    if (what === 0) {
      const [fill, stroke, width, dash, closed, count] = n.subarray(at, (at += 6));
      c.beginPath();
      for (let i = 0; i < count; ++i, at += 2) {
        if (i === 0) c.moveTo(n[at], n[at + 1]);
        else c.lineTo(n[at], n[at + 1]);
      }
      if (closed) c.closePath();
      ink(fill, stroke, width, dash);
    } else if (what === 1) {
      const [fill, stroke, width, dash, x, y, radius] = n.subarray(at, (at += 7));
      c.beginPath();
      c.arc(x, y, Math.max(0, radius), 0, 2 * Math.PI);
      ink(fill, stroke, width, dash);
    } else if (what === 2) {
      const [colour, x, y, size, align, bold, turn, begin, length] = n.subarray(at, (at += 9));
      c.fillStyle = colour_of(colour);
      c.font = `${bold ? 600 : 400} ${size}px ${fonts}`;
      c.textAlign = align === 1 ? 'center' : align === 2 ? 'right' : 'left';
      if (turn === 0) {
        c.fillText(words(begin, length), x, y);
      } else {
        c.save();
        c.translate(x, y);
        c.rotate(turn);
        c.fillText(words(begin, length), 0, 0);
        c.restore();
      }
    } else if (what === 3) {
      const [x, y, w, h, turn, begin, length] = n.subarray(at, (at += 7));
      const image = images(words(begin, length)) as (CanvasImageSource & { width: number; height: number }) | undefined;
      if (image === undefined || image.width === 0) continue;
      // It fills the box; what does not fit is cut off.
      const scale = Math.max(w / image.width, h / image.height);
      c.save();
      c.translate(x + w / 2, y + h / 2);
      c.rotate(turn);
      c.beginPath();
      c.rect(-w / 2, -h / 2, w, h);
      c.clip();
      const iw = image.width * scale;
      const ih = image.height * scale;
      c.drawImage(image, -iw / 2, -ih / 2, iw, ih);
      c.restore();
    } else if (what === 4) {
      const opacity = n[at++];
      const clipped = n[at++] === 1;
      open.push({ below: c, opacity });
      if (opacity < 1) {
        c = layer(depth++, c);
        c.lineJoin = 'round';
      }
      c.save();
      if (clipped) {
        c.beginPath();
        for (let i = 0; i < 4; ++i, at += 2) {
          if (i === 0) c.moveTo(n[at], n[at + 1]);
          else c.lineTo(n[at], n[at + 1]);
        }
        c.clip();
      }
    } else {
      const group = open.pop()!;
      c.restore();
      if (group.opacity < 1) {
        const drawn = c.canvas;
        --depth;
        c = group.below;
        c.save();
        c.setTransform(1, 0, 0, 1, 0, 0);
        c.globalAlpha = group.opacity;
        c.drawImage(drawn, 0, 0);
        c.restore();
      }
    }
  }
}
