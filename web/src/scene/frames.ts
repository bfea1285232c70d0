import { CORE } from "@/preview/constants";

/** A frame on a sheet, px. */
export const FRAME = { width: CORE.film.width, height: CORE.film.height };

const { perRow: PER_ROW, seconds: SECONDS } = CORE.film;
/** Sheets are as high as they are wide, counted in frames. */
const PER_SHEET = PER_ROW ** 2;

/** Until a picture that is being made is asked for again, ms. */
const AGAIN = 4000;

interface Film {
  sheets: Map<number, HTMLImageElement | null>;
  /** Source samples; null until they have come. */
  cuts: number[] | null;
  asked: boolean;
}

/** Small frames of films, fetched sheet by sheet as they are needed once they are made, and where the films cut. */
export class Frames {
  private readonly films = new Map<string, Film>();

  constructor(
    private readonly fetchCuts: (source: string) => Promise<number[] | null>,
    private readonly arrived: () => void,
  ) {}

  /**
   * The frame nearest to a moment, and where on its sheet it is; null until it has come, or where there is none.
   *
   * @param shot seconds between which it lies: the frame is one of these, where they last long enough
   */
  at(
    source: string,
    seconds: number,
    shot: [number, number],
  ): { image: HTMLImageElement; x: number; y: number } | null {
    const last = Math.ceil(shot[1] / SECONDS) - 1;
    const number = Math.max(0, Math.ceil(shot[0] / SECONDS), Math.min(last, Math.round(seconds / SECONDS)));
    const image = this.sheet(source, Math.floor(number / PER_SHEET));
    if (!image) return null;
    const place = number % PER_SHEET;
    const x = (place % PER_ROW) * FRAME.width;
    return { image, x, y: Math.floor(place / PER_ROW) * FRAME.height };
  }

  cuts(source: string): number[] {
    return this.film(source).cuts ?? [];
  }

  private film(source: string): Film {
    const film = this.films.get(source) ?? { sheets: new Map(), cuts: null, asked: false };
    this.films.set(source, film);
    if (film.cuts || film.asked) return film;
    film.asked = true;
    const again = () => {
      setTimeout(() => {
        film.asked = false;
        this.arrived();
      }, AGAIN);
    };
    this.fetchCuts(source).then((cuts) => {
      film.cuts = cuts;
      if (cuts) this.arrived();
      else again();
    }, again);
    return film;
  }

  private sheet(source: string, number: number): HTMLImageElement | null {
    const { sheets, cuts } = this.film(source);
    if (!cuts) return null;
    const known = sheets.get(number);
    if (known !== undefined) return known;
    sheets.set(number, null);
    const image = new Image();
    image.onload = () => {
      sheets.set(number, image);
      this.arrived();
    };
    image.fetchPriority = "low";
    image.src = `/api/sources/${source}/frames/${number}`;
    return null;
  }
}
