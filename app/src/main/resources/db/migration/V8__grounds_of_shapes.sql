-- A source may hold vector tiles, which are drawn here; the others hold pictures.
ALTER TABLE picture_sources ADD COLUMN shapes boolean NOT NULL DEFAULT false;
