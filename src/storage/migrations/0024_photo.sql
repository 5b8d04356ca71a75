-- Photos that were taken on site: the record names them. One that was taken out stays as a row without a
-- picture, so that it does not come back from a browser that sends it late.
CREATE TABLE IF NOT EXISTS photo (
  site_id UUID NOT NULL,
  id UUID NOT NULL,
  person_id UUID NOT NULL,
  made_at DATETIME(3) NOT NULL,
  jpeg MEDIUMBLOB NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT photo_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT photo_person FOREIGN KEY (person_id) REFERENCES person (id)
);
