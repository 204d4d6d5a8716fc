// Worker entry: lays the families of the library out on the map's grid, and names its regions.
import { layOutMap, type MapLayout } from "@/core/map/layOutMap";
import { nameRegions, type Region, type RegionWord } from "@/core/map/regions";

export type MapRequest = { vectors: Float32Array[]; aspect: number; words: RegionWord[] };
export type MapReply = MapLayout & { regions: Region[] };

export default function layOut({ vectors, aspect, words }: MapRequest): MapReply {
  const layout = layOutMap(vectors, aspect);
  return { ...layout, regions: nameRegions(layout.cells, layout, words) };
}
