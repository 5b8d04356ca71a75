-- What stands on the papers of a site beside its plan.
ALTER TABLE site
  ADD COLUMN IF NOT EXISTS paper JSON NOT NULL DEFAULT '{"firm":"","customer":"","agreed":"","calls":"","linkBase":""}';
