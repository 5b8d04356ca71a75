-- Photos that were taken on site. A row is there as soon as a step of the record names the photo; its picture
-- comes later, from the phone that took it. One that was taken out stays as a row without a picture, so that it
-- does not come back from a browser that sends it late.
CREATE TABLE IF NOT EXISTS photo (
  site_id UUID NOT NULL,
  id UUID NOT NULL,
  taken_out TINYINT(1) NOT NULL DEFAULT 0,
  jpeg MEDIUMBLOB NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT photo_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE
);
