-- Sign-in at the port in full: the stage, who may be behind a port, what is tried first, what the servers answer, how long all of it takes.
ALTER TABLE sign_in
  ADD COLUMN IF NOT EXISTS server_down_voice_vid SMALLINT UNSIGNED NULL
    CHECK (server_down_voice_vid BETWEEN 1 AND 4094),
  ADD COLUMN IF NOT EXISTS stage VARCHAR(8) NOT NULL DEFAULT 'closed'
    CHECK (stage IN ('watch', 'limited', 'closed')),
  ADD COLUMN IF NOT EXISTS before_it JSON NOT NULL DEFAULT '[]',
  ADD COLUMN IF NOT EXISTS port_hosts VARCHAR(8) NOT NULL DEFAULT 'several'
    CHECK (port_hosts IN ('one', 'phone', 'several', 'many')),
  ADD COLUMN IF NOT EXISTS tried_first VARCHAR(12) NOT NULL DEFAULT 'signInFirst'
    CHECK (tried_first IN ('signInFirst', 'macFirst')),
  ADD COLUMN IF NOT EXISTS sign_in_wins BOOLEAN NOT NULL DEFAULT TRUE,
  ADD COLUMN IF NOT EXISTS by_answer BOOLEAN NOT NULL DEFAULT FALSE,
  ADD COLUMN IF NOT EXISTS accounting_port SMALLINT UNSIGNED NULL,
  ADD COLUMN IF NOT EXISTS change_port SMALLINT UNSIGNED NULL,
  ADD COLUMN IF NOT EXISTS timers JSON NOT NULL DEFAULT '{"waitSeconds":30,"tries":3,"quietSeconds":60,"againSeconds":null,"serverSeconds":5,"serverTries":2,"deadSeconds":0,"testSeconds":null}',
  ADD COLUMN IF NOT EXISTS sends JSON NOT NULL DEFAULT '[]',
  ADD COLUMN IF NOT EXISTS secret_place VARCHAR(120) NOT NULL DEFAULT '';
