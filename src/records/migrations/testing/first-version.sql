-- An estate as the first version kept it (migrations 0001 to 0004): made by its worker against the fleet, then dumped.
CREATE FUNCTION public.bump_revision() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
declare
  volatile_columns text[] := tg_argv[0]::text[];
begin
  if (to_jsonb(new) - volatile_columns) is distinct from (to_jsonb(old) - volatile_columns) then
    new.revision := old.revision + 1;
  end if;
  return new;
end $$;
CREATE FUNCTION public.guard_change() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
begin
  if new.state is distinct from old.state and not (
    (old.state = 'draft' and new.state in ('checked', 'running')) or
    (old.state = 'checked' and new.state in ('draft', 'running')) or
    (old.state = 'running' and new.state in ('draft', 'proven', 'stopped', 'failed', 'undone')) or
    (old.state = 'stopped' and new.state in ('running', 'undone')) or
    (old.state in ('failed', 'proven') and new.state = 'undone')
  ) then
    raise exception 'a change cannot go from % to %', old.state, new.state using errcode = 'check_violation';
  end if;
  return new;
end $$;
CREATE FUNCTION public.refuse_rewriting() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
begin
  raise exception 'history is only ever added to' using errcode = 'check_violation';
end $$;
CREATE FUNCTION public.tell_change() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
begin
  perform pg_notify('wendrel', json_build_object('topic', 'changes', 'of', coalesce(to_jsonb(new) ->> 'change_id', to_jsonb(new) ->> 'id'))::text);
  return null;
end $$;
CREATE FUNCTION public.tell_estate() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
begin
  perform pg_notify('wendrel', json_build_object('topic', 'estate', 'of', tg_table_name)::text);
  return null;
end $$;
CREATE TABLE public.administrators (
    id uuid NOT NULL,
    name text NOT NULL,
    password_hash text NOT NULL,
    made_at timestamp with time zone DEFAULT now() NOT NULL,
    CONSTRAINT administrators_name_check CHECK ((name ~ '^[A-Za-z0-9][A-Za-z0-9._@-]{0,62}$'::text))
);
CREATE TABLE public.api_tokens (
    id uuid NOT NULL,
    administrator_id uuid NOT NULL,
    name text NOT NULL,
    token_hash text NOT NULL,
    made_at timestamp with time zone DEFAULT now() NOT NULL,
    used_at timestamp with time zone
);
CREATE TABLE public.catalogues (
    id uuid NOT NULL,
    import_key text NOT NULL,
    maker text NOT NULL,
    issued_at timestamp with time zone NOT NULL,
    body jsonb NOT NULL,
    imported_by text NOT NULL,
    imported_at timestamp with time zone DEFAULT now() NOT NULL
);
CREATE TABLE public.change_journal (
    id bigint NOT NULL,
    change_id uuid NOT NULL,
    step_index integer NOT NULL,
    event text NOT NULL,
    at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    estate_at timestamp with time zone NOT NULL,
    done_ratio double precision,
    words text DEFAULT ''::text NOT NULL,
    facts jsonb DEFAULT '{}'::jsonb NOT NULL,
    CONSTRAINT change_journal_done_ratio_check CHECK (((done_ratio >= (0)::double precision) AND (done_ratio <= (1)::double precision))),
    CONSTRAINT change_journal_event_check CHECK ((event = ANY (ARRAY['begun'::text, 'progress'::text, 'done'::text, 'failed'::text, 'undone'::text])))
);
ALTER TABLE public.change_journal ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.change_journal_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.changes (
    id uuid NOT NULL,
    number integer NOT NULL,
    kind text NOT NULL,
    state text NOT NULL,
    title text DEFAULT ''::text NOT NULL,
    intent jsonb NOT NULL,
    plan jsonb NOT NULL,
    differences jsonb DEFAULT '[]'::jsonb NOT NULL,
    made_by text NOT NULL,
    made_at timestamp with time zone DEFAULT now() NOT NULL,
    revised_at timestamp with time zone DEFAULT now() NOT NULL,
    carried_out_at timestamp with time zone,
    carried_out_estate_at timestamp with time zone,
    ended_at timestamp with time zone,
    ended_estate_at timestamp with time zone,
    is_stop_wanted boolean DEFAULT false NOT NULL,
    is_undo_wanted boolean DEFAULT false NOT NULL,
    facts jsonb DEFAULT '{}'::jsonb NOT NULL,
    refusal jsonb,
    stands text,
    reverses uuid,
    CONSTRAINT changes_state_check CHECK ((state = ANY (ARRAY['draft'::text, 'checked'::text, 'running'::text, 'proven'::text, 'stopped'::text, 'failed'::text, 'undone'::text])))
);
ALTER TABLE public.changes ALTER COLUMN number ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.changes_number_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.claims (
    claim text NOT NULL,
    change_id uuid NOT NULL
);
CREATE TABLE public.controllers (
    id uuid NOT NULL,
    system_id uuid NOT NULL,
    locator text NOT NULL,
    name text NOT NULL,
    model text,
    firmware text,
    state text NOT NULL,
    revision integer DEFAULT 1 NOT NULL,
    CONSTRAINT controllers_state_check CHECK ((state = ANY (ARRAY['fine'::text, 'failed'::text])))
);
CREATE TABLE public.drives (
    id uuid NOT NULL,
    system_id uuid NOT NULL,
    locator text NOT NULL,
    enclosure_id uuid,
    bay integer NOT NULL,
    name text NOT NULL,
    media text NOT NULL,
    protocol text NOT NULL,
    capacity_bytes numeric(25,0) NOT NULL,
    model text NOT NULL,
    serial text NOT NULL,
    wwn text,
    firmware text,
    state text NOT NULL,
    role text NOT NULL,
    pool_id uuid,
    group_index integer,
    rotation_speed_rpm integer,
    power_on_hours integer,
    wear_ratio double precision,
    revision integer DEFAULT 1 NOT NULL,
    node_id uuid,
    is_boot boolean DEFAULT false NOT NULL,
    is_lit boolean DEFAULT false NOT NULL,
    drive_writes_per_day double precision,
    left_over jsonb,
    bank integer,
    CONSTRAINT drives_capacity_bytes_check CHECK ((capacity_bytes >= (0)::numeric)),
    CONSTRAINT drives_media_check CHECK ((media = ANY (ARRAY['HDD'::text, 'SSD'::text]))),
    CONSTRAINT drives_protocol_check CHECK ((protocol = ANY (ARRAY['NVMe'::text, 'SAS'::text, 'SATA'::text]))),
    CONSTRAINT drives_role_check CHECK ((role = ANY (ARRAY['unassigned'::text, 'data'::text, 'spare'::text, 'cache'::text]))),
    CONSTRAINT drives_state_check CHECK ((state = ANY (ARRAY['fine'::text, 'failing'::text, 'failed'::text])))
);
CREATE TABLE public.enclosures (
    id uuid NOT NULL,
    system_id uuid NOT NULL,
    locator text NOT NULL,
    name text NOT NULL,
    bay_count integer NOT NULL,
    bays_per_row integer NOT NULL,
    revision integer DEFAULT 1 NOT NULL,
    CONSTRAINT enclosures_bay_count_check CHECK ((bay_count >= 0)),
    CONSTRAINT enclosures_bays_per_row_check CHECK ((bays_per_row >= 0))
);
CREATE TABLE public.evidence (
    id bigint NOT NULL,
    change_id uuid NOT NULL,
    claim text NOT NULL,
    holds boolean NOT NULL,
    measured jsonb NOT NULL,
    at timestamp with time zone DEFAULT clock_timestamp() NOT NULL
);
ALTER TABLE public.evidence ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.evidence_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.findings (
    id bigint NOT NULL,
    key text NOT NULL,
    system_id uuid NOT NULL,
    body jsonb NOT NULL,
    since timestamp with time zone DEFAULT now() NOT NULL,
    cleared_at timestamp with time zone
);
ALTER TABLE public.findings ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.findings_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.forecast_outcomes (
    change_id uuid NOT NULL,
    kind text NOT NULL,
    base_seconds double precision NOT NULL,
    p10_seconds double precision NOT NULL,
    p50_seconds double precision NOT NULL,
    p90_seconds double precision NOT NULL,
    actual_seconds double precision NOT NULL,
    ended_at timestamp with time zone DEFAULT now() NOT NULL
);
CREATE TABLE public.host_groups (
    id uuid NOT NULL,
    name text NOT NULL,
    revision integer DEFAULT 1 NOT NULL,
    CONSTRAINT host_groups_name_check CHECK (((length(name) >= 1) AND (length(name) <= 255)))
);
CREATE TABLE public.hosts (
    id uuid NOT NULL,
    host_group_id uuid NOT NULL,
    name text NOT NULL,
    agent_address text NOT NULL,
    operating_system text,
    initiators jsonb DEFAULT '[]'::jsonb NOT NULL,
    enrol_key text NOT NULL,
    revision integer DEFAULT 1 NOT NULL
);
CREATE TABLE public.mappings (
    id uuid NOT NULL,
    system_id uuid NOT NULL,
    locator text NOT NULL,
    volume_id uuid NOT NULL,
    host_group_id uuid,
    group_name text NOT NULL,
    lun integer NOT NULL,
    revision integer DEFAULT 1 NOT NULL
);
CREATE TABLE public.migrations (
    name text NOT NULL,
    at timestamp with time zone DEFAULT now() NOT NULL
);
CREATE TABLE public.name_answers (
    query text NOT NULL,
    kind text NOT NULL,
    answers jsonb NOT NULL,
    why text,
    at timestamp with time zone NOT NULL,
    CONSTRAINT name_answers_kind_check CHECK ((kind = ANY (ARRAY['forward'::text, 'reverse'::text])))
);
CREATE TABLE public.node_ports (
    id uuid NOT NULL,
    system_id uuid NOT NULL,
    locator text NOT NULL,
    node_id uuid NOT NULL,
    name text NOT NULL,
    mac text NOT NULL,
    speed_bits_per_second double precision NOT NULL,
    is_up boolean NOT NULL,
    mtu integer NOT NULL,
    traffic jsonb DEFAULT '[]'::jsonb NOT NULL,
    switch_port_id uuid,
    storage jsonb,
    revision integer DEFAULT 1 NOT NULL,
    CONSTRAINT node_ports_mtu_check CHECK ((mtu >= 0))
);
CREATE TABLE public.nodes (
    id uuid NOT NULL,
    system_id uuid NOT NULL,
    locator text NOT NULL,
    name text NOT NULL,
    host_name text,
    rack text,
    enclosure_id uuid,
    state text NOT NULL,
    firmware text,
    model text,
    clock_offset_seconds double precision NOT NULL,
    is_restart_service_on boolean NOT NULL,
    most_capacity_drives integer NOT NULL,
    memory_bytes double precision NOT NULL,
    agent_address text,
    revision integer DEFAULT 1 NOT NULL,
    CONSTRAINT nodes_most_capacity_drives_check CHECK ((most_capacity_drives >= 0)),
    CONSTRAINT nodes_state_check CHECK ((state = ANY (ARRAY['fine'::text, 'not answering'::text])))
);
CREATE TABLE public.path_probes (
    system_id uuid NOT NULL,
    at timestamp with time zone NOT NULL,
    wanted_mtu integer NOT NULL,
    answers jsonb NOT NULL
);
CREATE TABLE public.pools (
    id uuid NOT NULL,
    system_id uuid NOT NULL,
    locator text NOT NULL,
    name text NOT NULL,
    scheme jsonb NOT NULL,
    drive_kind jsonb NOT NULL,
    group_sizes jsonb NOT NULL,
    spare_count integer NOT NULL,
    state text NOT NULL,
    raw_bytes numeric(25,0) NOT NULL,
    usable_bytes numeric(25,0) NOT NULL,
    written_bytes numeric(25,0) NOT NULL,
    provisioned_bytes numeric(25,0) NOT NULL,
    metadata_bytes numeric(25,0) NOT NULL,
    snapshot_reserve_bytes numeric(25,0) NOT NULL,
    redundancy_bytes numeric(25,0) NOT NULL,
    stranded_bytes numeric(25,0) NOT NULL,
    spare_bytes numeric(25,0) NOT NULL,
    revision integer DEFAULT 1 NOT NULL,
    failure_domain text,
    rebuild_reserve_bytes numeric(25,0) DEFAULT 0 NOT NULL,
    CONSTRAINT pools_failure_domain_check CHECK ((failure_domain = ANY (ARRAY['node'::text, 'enclosure'::text, 'rack'::text]))),
    CONSTRAINT pools_raw_bytes_check CHECK ((raw_bytes >= (0)::numeric)),
    CONSTRAINT pools_state_check CHECK ((state = ANY (ARRAY['starting'::text, 'fine'::text, 'degraded'::text, 'failed'::text]))),
    CONSTRAINT pools_usable_bytes_check CHECK ((usable_bytes >= (0)::numeric))
);
CREATE TABLE public.ports (
    id uuid NOT NULL,
    system_id uuid NOT NULL,
    locator text NOT NULL,
    name text NOT NULL,
    protocol text NOT NULL,
    speed_bits_per_second double precision NOT NULL,
    is_up boolean NOT NULL,
    address text,
    target_name text,
    revision integer DEFAULT 1 NOT NULL
);
CREATE TABLE public.probes (
    id uuid NOT NULL,
    at timestamp with time zone DEFAULT now() NOT NULL,
    found jsonb NOT NULL,
    address text NOT NULL,
    uuid text NOT NULL,
    accepted_fingerprint text,
    user_name text NOT NULL,
    sealed_password bytea NOT NULL,
    made_by text NOT NULL
);
CREATE TABLE public.rebuilds (
    id uuid NOT NULL,
    system_id uuid NOT NULL,
    locator text NOT NULL,
    pool_id uuid,
    kind text NOT NULL,
    bytes numeric(25,0) NOT NULL,
    base_seconds double precision NOT NULL,
    p10_seconds double precision NOT NULL,
    p50_seconds double precision NOT NULL,
    p90_seconds double precision NOT NULL,
    bound_by text NOT NULL,
    started_estate_at timestamp with time zone NOT NULL,
    done_ratio double precision NOT NULL,
    ended_estate_at timestamp with time zone,
    state text NOT NULL,
    was_forecast boolean NOT NULL,
    CONSTRAINT rebuilds_kind_check CHECK ((kind = ANY (ARRAY['rebuild'::text, 'move'::text]))),
    CONSTRAINT rebuilds_state_check CHECK ((state = ANY (ARRAY['running'::text, 'done'::text, 'failed'::text])))
);
CREATE TABLE public.sessions (
    id uuid NOT NULL,
    administrator_id uuid NOT NULL,
    opened_at timestamp with time zone DEFAULT now() NOT NULL,
    used_at timestamp with time zone DEFAULT now() NOT NULL
);
CREATE TABLE public.settings (
    key text NOT NULL,
    value jsonb NOT NULL
);
CREATE TABLE public.sign_in_attempts (
    id bigint NOT NULL,
    name text NOT NULL,
    address text NOT NULL,
    succeeded boolean NOT NULL,
    at timestamp with time zone DEFAULT now() NOT NULL
);
ALTER TABLE public.sign_in_attempts ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.sign_in_attempts_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.signed_exceptions (
    id uuid NOT NULL,
    sign_key text NOT NULL,
    finding_key text NOT NULL,
    reason text NOT NULL,
    signed_by text NOT NULL,
    signed_at timestamp with time zone DEFAULT now() NOT NULL,
    until timestamp with time zone NOT NULL,
    CONSTRAINT signed_exceptions_reason_check CHECK (((length(reason) >= 1) AND (length(reason) <= 1000)))
);
CREATE TABLE public.sites (
    id uuid NOT NULL,
    name text NOT NULL,
    revision integer DEFAULT 1 NOT NULL,
    CONSTRAINT sites_name_check CHECK (((length(name) >= 1) AND (length(name) <= 255)))
);
CREATE TABLE public.switch_ports (
    id uuid NOT NULL,
    system_id uuid NOT NULL,
    locator text NOT NULL,
    switch_id uuid NOT NULL,
    name text NOT NULL,
    mtu integer NOT NULL,
    vlans jsonb DEFAULT '[]'::jsonb NOT NULL,
    is_up boolean NOT NULL,
    peer_port_id uuid,
    revision integer DEFAULT 1 NOT NULL,
    CONSTRAINT switch_ports_mtu_check CHECK ((mtu >= 0))
);
CREATE TABLE public.switches (
    id uuid NOT NULL,
    system_id uuid NOT NULL,
    locator text NOT NULL,
    name text NOT NULL,
    model text,
    firmware text,
    revision integer DEFAULT 1 NOT NULL
);
CREATE TABLE public.systems (
    id uuid NOT NULL,
    site_id uuid,
    name text NOT NULL,
    address text NOT NULL,
    maker text NOT NULL,
    model text NOT NULL,
    serial text NOT NULL,
    uuid text NOT NULL,
    firmware text,
    reach text NOT NULL,
    reach_why text,
    seen_at timestamp with time zone,
    accepted_fingerprint text,
    user_name text NOT NULL,
    sealed_password bytea NOT NULL,
    enrol_key text NOT NULL,
    sensors jsonb DEFAULT '[]'::jsonb NOT NULL,
    clock_wall_at timestamp with time zone,
    clock_system_at timestamp with time zone,
    clock_rate double precision DEFAULT 1 NOT NULL,
    revision integer DEFAULT 1 NOT NULL,
    cluster_name text,
    CONSTRAINT systems_name_check CHECK (((length(name) >= 1) AND (length(name) <= 255))),
    CONSTRAINT systems_reach_check CHECK ((reach = ANY (ARRAY['answering'::text, 'not answering'::text])))
);
CREATE TABLE public.volumes (
    id uuid NOT NULL,
    system_id uuid NOT NULL,
    locator text NOT NULL,
    pool_id uuid NOT NULL,
    name text NOT NULL,
    naa text NOT NULL,
    size_bytes numeric(25,0) NOT NULL,
    is_thin boolean NOT NULL,
    written_bytes numeric(25,0) NOT NULL,
    state text DEFAULT 'in use'::text NOT NULL,
    holding_until timestamp with time zone,
    revision integer DEFAULT 1 NOT NULL,
    lost_bytes numeric(25,0) DEFAULT 0 NOT NULL,
    CONSTRAINT volumes_check CHECK (((state = 'holding'::text) = (holding_until IS NOT NULL))),
    CONSTRAINT volumes_size_bytes_check CHECK ((size_bytes >= (0)::numeric)),
    CONSTRAINT volumes_state_check CHECK ((state = ANY (ARRAY['in use'::text, 'holding'::text])))
);
INSERT INTO public.change_journal OVERRIDING SYSTEM VALUE VALUES (1, '01a21369-1b20-712f-8c37-fc64a85254a3', 0, 'begun', '2026-11-25 15:53:05.21136+00', '2026-11-25 15:53:05.21+00', NULL, 'Take it into the estate', '{}');
INSERT INTO public.change_journal OVERRIDING SYSTEM VALUE VALUES (2, '01a21369-1b20-712f-8c37-fc64a85254a3', 0, 'done', '2026-11-25 15:53:05.228068+00', '2026-11-25 15:53:05.227+00', NULL, 'Take it into the estate', '{"systemId": "01a21369-1bc7-72b6-a8fa-d27eb4b80b98"}');
INSERT INTO public.change_journal OVERRIDING SYSTEM VALUE VALUES (3, '01a21369-1b20-712f-8c37-fc64a85254a3', 1, 'begun', '2026-11-25 15:53:05.264687+00', '2026-11-25 15:53:05.263+00', NULL, 'Read all that it has', '{}');
INSERT INTO public.change_journal OVERRIDING SYSTEM VALUE VALUES (4, '01a21369-1b20-712f-8c37-fc64a85254a3', 1, 'done', '2026-11-25 15:53:05.394067+00', '2026-11-25 15:53:05.393+00', NULL, 'Read all that it has', '{}');
INSERT INTO public.change_journal OVERRIDING SYSTEM VALUE VALUES (5, '01a21369-2b8e-7397-b436-c3bdfc964305', 0, 'begun', '2026-11-25 15:53:09.328368+00', '2026-11-28 01:44:39.541+00', NULL, 'Ask the host who it is and take it into the estate', '{}');
INSERT INTO public.change_journal OVERRIDING SYSTEM VALUE VALUES (6, '01a21369-2b8e-7397-b436-c3bdfc964305', 0, 'done', '2026-11-25 15:53:09.344285+00', '2026-11-28 01:54:15.541+00', NULL, 'Ask the host who it is and take it into the estate', '{"hostId": "01a21369-2bda-7648-b7b4-2b8085bc765e"}');
INSERT INTO public.change_journal OVERRIDING SYSTEM VALUE VALUES (7, '01a21369-2c3d-77cb-80ff-6f44e6c8b6bc', 0, 'begun', '2026-11-25 15:53:09.537585+00', '2026-11-28 03:50:03.541+00', NULL, 'Ask the host who it is and take it into the estate', '{}');
INSERT INTO public.change_journal OVERRIDING SYSTEM VALUE VALUES (8, '01a21369-2c3d-77cb-80ff-6f44e6c8b6bc', 0, 'done', '2026-11-25 15:53:09.54782+00', '2026-11-28 03:56:39.541+00', NULL, 'Ask the host who it is and take it into the estate', '{"hostId": "01a21369-2ca8-728d-b284-0a0c06dd8e0f"}');
INSERT INTO public.change_journal OVERRIDING SYSTEM VALUE VALUES (9, '01a21369-2d0d-732a-91fa-7982628770fc', 0, 'begun', '2026-11-25 15:53:09.821744+00', '2026-11-28 06:41:03.541+00', NULL, 'Ask the host who it is and take it into the estate', '{}');
INSERT INTO public.change_journal OVERRIDING SYSTEM VALUE VALUES (10, '01a21369-2d0d-732a-91fa-7982628770fc', 0, 'done', '2026-11-25 15:53:09.873032+00', '2026-11-28 07:11:39.541+00', NULL, 'Ask the host who it is and take it into the estate', '{"hostId": "01a21369-2dda-769d-8f6c-662285dbeb36"}');
INSERT INTO public.change_journal OVERRIDING SYSTEM VALUE VALUES (11, '01a21369-2efe-72a8-8617-28c864dd85c6', 0, 'begun', '2026-11-25 15:53:10.242101+00', '2026-11-28 10:53:03.541+00', NULL, 'Create it with 1 RAID group', '{}');
INSERT INTO public.change_journal OVERRIDING SYSTEM VALUE VALUES (12, '01a21369-2efe-72a8-8617-28c864dd85c6', 0, 'done', '2026-11-25 15:53:10.268784+00', '2026-11-28 11:09:15.541+00', NULL, 'Create it with 1 RAID group', '{"task": "/redfish/v1/TaskService/Tasks/1", "poolLocator": "/redfish/v1/Storage/1/StoragePools/1-4f57"}');
INSERT INTO public.change_journal OVERRIDING SYSTEM VALUE VALUES (13, '01a21369-2efe-72a8-8617-28c864dd85c6', 1, 'begun', '2026-11-25 15:53:10.382198+00', '2026-11-28 12:17:03.541+00', NULL, 'Initialise its drives', '{}');
INSERT INTO public.change_journal OVERRIDING SYSTEM VALUE VALUES (14, '01a21369-2efe-72a8-8617-28c864dd85c6', 1, 'progress', '2026-11-25 15:53:10.389564+00', '2026-11-28 12:21:51.541+00', 0, 'Initialising', '{}');
INSERT INTO public.change_journal OVERRIDING SYSTEM VALUE VALUES (15, '01a21369-2efe-72a8-8617-28c864dd85c6', 1, 'progress', '2026-11-25 15:53:10.860162+00', '2026-11-28 17:02:03.541+00', 1, 'Initialising', '{}');
INSERT INTO public.change_journal OVERRIDING SYSTEM VALUE VALUES (16, '01a21369-2efe-72a8-8617-28c864dd85c6', 1, 'done', '2026-11-25 15:53:10.893038+00', '2026-11-28 17:21:51.541+00', NULL, 'Initialise its drives', '{"poolId": "01a21369-2fcf-73c5-b956-c90f67441166"}');
INSERT INTO public.change_journal OVERRIDING SYSTEM VALUE VALUES (17, '01a21369-35dd-75b3-b8bb-5c2d44461e98', 0, 'begun', '2026-11-25 15:53:12.017699+00', '2026-11-29 04:41:20.075+00', NULL, 'Create register-data-01, 4 TiB, thin', '{}');
INSERT INTO public.change_journal OVERRIDING SYSTEM VALUE VALUES (18, '01a21369-35dd-75b3-b8bb-5c2d44461e98', 0, 'done', '2026-11-25 15:53:12.168325+00', '2026-11-29 06:11:58.678+00', NULL, 'Create register-data-01, 4 TiB, thin', '{"naa": "66e2041dc1ec06e88d981574896128b2", "systemId": "01a21369-1bc7-72b6-a8fa-d27eb4b80b98", "volumeId": "01a21369-36ca-7388-a13d-63739453d808", "volumeLocator": "/redfish/v1/Storage/1/Volumes/1-05de"}');
INSERT INTO public.change_journal OVERRIDING SYSTEM VALUE VALUES (19, '01a21369-35dd-75b3-b8bb-5c2d44461e98', 1, 'begun', '2026-11-25 15:53:12.270843+00', '2026-11-29 07:13:48.454+00', NULL, 'Map it to accession-register', '{}');
INSERT INTO public.change_journal OVERRIDING SYSTEM VALUE VALUES (20, '01a21369-35dd-75b3-b8bb-5c2d44461e98', 1, 'done', '2026-11-25 15:53:12.361579+00', '2026-11-29 08:07:50.006+00', NULL, 'Map it to accession-register', '{"lun": "0", "mappingLocator": "/redfish/v1/Fabrics/SAN/Connections/1"}');
INSERT INTO public.changes OVERRIDING SYSTEM VALUE VALUES ('01a21369-2b77-706a-a462-f5476deb706e', 2, 'register-system', 'draft', 'Register heron-2', '{"name": "heron-2", "siteId": "", "probeId": "01a21369-1aa1-752d-8465-bd6ca1bd8f11", "acceptedFingerprint": "", "isPlainHttpAccepted": true}', '{"undo": {"how": "Nothing is changed on the system itself. It can be taken out of the estate again.", "possible": true}, "proof": "It is asked anew who it is, and its drives are compared with what was kept, serial number by serial number.", "reads": [], "steps": [{"name": "enrol", "step": {"name": "heron-2", "step": "enrol", "siteId": "", "probeId": "01a21369-1aa1-752d-8465-bd6ca1bd8f11"}, "words": "Take it into the estate", "forecast": {"boundBy": "requests", "p10Seconds": 0.026999999999999996, "p50Seconds": 0.0315, "p90Seconds": 0.045483030821917805, "baseSeconds": 0.03, "learnedFrom": 1}}, {"name": "read", "step": {"step": "read"}, "words": "Read all that it has", "forecast": {"boundBy": "requests", "p10Seconds": 0.23579999999999998, "p50Seconds": 0.2751, "p90Seconds": 0.3972184691780822, "baseSeconds": 0.262, "learnedFrom": 1}}], "title": "Register heron-2", "checks": [{"why": "Tallis & Thorne Ardea F24, serial 19AF628DCC, answered at http://127.0.0.1:33433.", "rule": "looked-at", "holds": true, "level": "must"}, {"why": "\"heron-2\" is a good name for the system.", "rule": "name", "field": "name", "holds": true, "level": "must"}, {"why": "heron-2 is free.", "rule": "name-free", "field": "name", "holds": true, "level": "must"}, {"why": "It is registered already, as heron, known by its UUID.", "rule": "new", "holds": false, "level": "must", "remedy": "Open heron instead."}, {"why": "The address is plain HTTP: name, password and everything else can be read on the way.", "rule": "plain-http", "field": "isPlainHttpAccepted", "holds": true, "level": "must", "remedy": "Use an https address, or accept it for this system."}, {"why": "The site is one of the estate.", "rule": "site", "field": "siteId", "holds": true, "level": "must"}], "claims": ["name:heron-2", "uuid:19af628d-cc88-4921-8362-1605818cccd7"], "oneWay": [], "effects": [{"unit": "count", "after": 2, "label": "Systems in the estate", "before": 1, "figure": "systems"}, {"unit": "bytes", "after": "184356027039744", "label": "Raw capacity it brings", "before": null, "figure": "rawBytes"}, {"unit": "count", "after": 24, "label": "Drives it brings", "before": null, "figure": "drives"}], "forecast": {"boundBy": "requests", "p10Seconds": 0.2628, "p50Seconds": 0.3066, "p90Seconds": 0.44270149999999997, "baseSeconds": 0.29200000000000004, "learnedFrom": 1}, "suggestions": {"name": "ardea-f24"}}', '[]', 'tester', '2026-11-25 15:53:09.23995+00', '2026-11-25 15:53:09.23995+00', NULL, NULL, NULL, NULL, false, false, '{}', NULL, NULL, NULL);
INSERT INTO public.changes OVERRIDING SYSTEM VALUE VALUES ('01a21369-2efe-72a8-8617-28c864dd85c6', 6, 'create-pool', 'proven', 'Create pool heron-fast-01 on heron', '{"name": "heron-fast-01", "scheme": {"kind": "parity", "parityDrives": 2}, "driveIds": ["01a21369-1c55-7074-ad5e-ec747854111f", "01a21369-1c55-7074-ad5e-f3282127900b", "01a21369-1c55-7074-ad5e-f664477e3b2d", "01a21369-1c55-7074-ad5e-f8df3fd51e14", "01a21369-1c55-7074-ad5e-fe6cc5578af7", "01a21369-1c56-7244-8639-eb6037315984", "01a21369-1c56-7244-8639-ee4e9d75dca0", "01a21369-1c56-7244-8639-f0f3622ccd9c", "01a21369-1c56-7244-8639-f492a3bb58ce", "01a21369-1c56-7244-8639-fb37369c4239", "01a21369-1c56-7244-8639-fe73e62129c6", "01a21369-1c56-7244-863a-0309cbf23796"], "systemId": "01a21369-1bc7-72b6-a8fa-d27eb4b80b98", "spareCount": 1, "maxGroupDrives": 12, "snapshotSharePercent": 10}', '{"undo": {"how": "The pool can be removed as long as it holds no volumes; its drives are free again.", "possible": true}, "proof": "The system is asked for the pool again: it must be ready, hold exactly the chosen drives, and have the usable space that was planned.", "reads": [{"id": "01a21369-1bc7-72b6-a8fa-d27eb4b80b98", "kind": "system", "name": "heron", "revision": 1}, {"id": "01a21369-1c55-7074-ad5e-ec747854111f", "kind": "drive", "name": "drive 38A7", "revision": 1}, {"id": "01a21369-1c55-7074-ad5e-f3282127900b", "kind": "drive", "name": "drive 5B30", "revision": 1}, {"id": "01a21369-1c55-7074-ad5e-f664477e3b2d", "kind": "drive", "name": "drive 929D", "revision": 1}, {"id": "01a21369-1c55-7074-ad5e-f8df3fd51e14", "kind": "drive", "name": "drive 6C92", "revision": 1}, {"id": "01a21369-1c55-7074-ad5e-fe6cc5578af7", "kind": "drive", "name": "drive 51E8", "revision": 1}, {"id": "01a21369-1c56-7244-8639-eb6037315984", "kind": "drive", "name": "drive 5FC1", "revision": 1}, {"id": "01a21369-1c56-7244-8639-ee4e9d75dca0", "kind": "drive", "name": "drive F5A2", "revision": 1}, {"id": "01a21369-1c56-7244-8639-f0f3622ccd9c", "kind": "drive", "name": "drive D3CE", "revision": 1}, {"id": "01a21369-1c56-7244-8639-f492a3bb58ce", "kind": "drive", "name": "drive 8AF5", "revision": 1}, {"id": "01a21369-1c56-7244-8639-fb37369c4239", "kind": "drive", "name": "drive 10AD", "revision": 1}, {"id": "01a21369-1c56-7244-8639-fe73e62129c6", "kind": "drive", "name": "drive B12A", "revision": 1}, {"id": "01a21369-1c56-7244-863a-0309cbf23796", "kind": "drive", "name": "drive 1020", "revision": 1}], "steps": [{"name": "create", "step": {"name": "heron-fast-01", "step": "create", "groups": [["/redfish/v1/Chassis/1/Drives/1-2", "/redfish/v1/Chassis/1/Drives/1-3", "/redfish/v1/Chassis/1/Drives/1-4", "/redfish/v1/Chassis/1/Drives/1-5", "/redfish/v1/Chassis/1/Drives/1-6", "/redfish/v1/Chassis/1/Drives/1-7", "/redfish/v1/Chassis/1/Drives/1-8", "/redfish/v1/Chassis/1/Drives/1-9", "/redfish/v1/Chassis/1/Drives/1-10", "/redfish/v1/Chassis/1/Drives/1-11", "/redfish/v1/Chassis/1/Drives/1-12"]], "scheme": {"kind": "parity", "parityDrives": 2}, "spares": ["/redfish/v1/Chassis/1/Drives/1-1"], "systemId": "01a21369-1bc7-72b6-a8fa-d27eb4b80b98", "snapshotSharePercent": 10}, "words": "Create it with 1 RAID group", "forecast": {"boundBy": "requests", "p10Seconds": 0.89, "p50Seconds": 1, "p90Seconds": 1.25, "baseSeconds": 1, "learnedFrom": 0}}, {"name": "initialise", "step": {"step": "initialise", "systemId": "01a21369-1bc7-72b6-a8fa-d27eb4b80b98"}, "words": "Initialise its drives", "forecast": {"boundBy": "drives", "p10Seconds": 4274.6150017024, "p50Seconds": 4802.93820416, "p90Seconds": 6003.6727552, "baseSeconds": 4802.93820416, "learnedFrom": 0}}], "title": "Create pool heron-fast-01 on heron", "checks": [{"why": "heron answers.", "rule": "system-answers", "holds": true, "level": "must", "remedy": "Wait until it answers again; the draft is kept."}, {"why": "\"heron-fast-01\" is a good name for the pool.", "rule": "name", "field": "name", "holds": true, "level": "must"}, {"why": "The name is free.", "rule": "name-free", "field": "name", "holds": true, "level": "must"}, {"why": "All chosen drives are there.", "rule": "drives-known", "field": "driveIds", "holds": true, "level": "must", "remedy": "Choose again from the bays."}, {"why": "No chosen drive is in use.", "rule": "drives-free", "field": "driveIds", "holds": true, "level": "must", "remedy": "Take them out of the choice."}, {"why": "All chosen drives are healthy.", "rule": "drives-fine", "field": "driveIds", "holds": true, "level": "must", "remedy": "Take them out of the choice."}, {"why": "All are of one media.", "rule": "one-media", "field": "driveIds", "holds": true, "level": "must", "remedy": "Make a pool of each."}, {"why": "1 group of 11 drives.", "rule": "layout", "field": "maxGroupDrives", "holds": true, "level": "must"}, {"why": "All drives of a group are of one size; nothing is stranded.", "rule": "nothing-stranded", "field": "driveIds", "holds": true, "level": "warn", "remedy": "Make groups of equal drives."}, {"why": "1 spare: a lost drive is rebuilt at once.", "rule": "spares", "field": "spareCount", "holds": true, "level": "warn"}, {"why": "No other change is at work on this.", "rule": "not-held", "holds": true, "level": "must", "remedy": "Wait for it to end, or stop it."}], "claims": ["01a21369-1c55-7074-ad5e-ec747854111f", "01a21369-1c55-7074-ad5e-f3282127900b", "01a21369-1c55-7074-ad5e-f664477e3b2d", "01a21369-1c55-7074-ad5e-f8df3fd51e14", "01a21369-1c55-7074-ad5e-fe6cc5578af7", "01a21369-1c56-7244-8639-eb6037315984", "01a21369-1c56-7244-8639-ee4e9d75dca0", "01a21369-1c56-7244-8639-f0f3622ccd9c", "01a21369-1c56-7244-8639-f492a3bb58ce", "01a21369-1c56-7244-8639-fb37369c4239", "01a21369-1c56-7244-8639-fe73e62129c6", "01a21369-1c56-7244-863a-0309cbf23796", "pool:01a21369-1bc7-72b6-a8fa-d27eb4b80b98/heron-fast-01"], "oneWay": ["Layout and group size can''t be changed later.", "Initialising overwrites everything on the chosen drives."], "sketch": {"of": "pool", "groups": [{"words": "9 data + 2 parity", "driveIds": ["01a21369-1c55-7074-ad5e-f3282127900b", "01a21369-1c55-7074-ad5e-f664477e3b2d", "01a21369-1c55-7074-ad5e-f8df3fd51e14", "01a21369-1c55-7074-ad5e-fe6cc5578af7", "01a21369-1c56-7244-8639-eb6037315984", "01a21369-1c56-7244-8639-ee4e9d75dca0", "01a21369-1c56-7244-8639-f0f3622ccd9c", "01a21369-1c56-7244-8639-f492a3bb58ce", "01a21369-1c56-7244-8639-fb37369c4239", "01a21369-1c56-7244-8639-fe73e62129c6", "01a21369-1c56-7244-863a-0309cbf23796"]}], "ladder": [{"sum": [{"name": "all chosen drives", "bytes": "92178013519872"}], "name": "raw", "bytes": "92178013519872", "takenBytes": "0"}, {"sum": [{"name": "drives kept as spares", "bytes": "7681501126656"}], "name": "after spares", "bytes": "84496512393216", "takenBytes": "7681501126656"}, {"sum": [{"name": "parity or copies", "bytes": "15363002253312"}, {"name": "stranded on larger drives", "bytes": "0"}], "name": "after layout", "bytes": "69133510139904", "takenBytes": "15363002253312"}, {"sum": [{"name": "the system''s own accounts", "bytes": "691335101399"}], "name": "after metadata", "bytes": "68442175038505", "takenBytes": "691335101399"}, {"sum": [{"name": "kept for snapshots", "bytes": "6844217503850"}], "name": "after snapshot reserve", "bytes": "61597957534655", "takenBytes": "6844217503850"}, {"sum": [{"name": "written by hosts", "bytes": "0"}], "name": "free", "bytes": "61597957534655", "takenBytes": "0"}], "durability": {"basis": "0.8% of SSD drives fail in a year; independent failures; rebuilt at half a drive''s rate", "oneYear": 0.000000009552868598092785, "survives": 2, "fiveYears": 0.000000047782953222582544, "rebuildHours": 2.13375031296}, "spareDriveIds": ["01a21369-1c55-7074-ad5e-ec747854111f"]}, "effects": [{"unit": "bytes", "after": "61597957534655", "label": "Free to provision", "before": null, "figure": "freeBytes"}, {"unit": "bytes", "after": "92178013519872", "label": "Raw, of the chosen drives", "before": null, "figure": "rawBytes"}, {"unit": "count", "after": 12, "label": "Drives left unassigned", "before": 24, "figure": "unassigned"}], "forecast": {"boundBy": "drives", "p10Seconds": 4275.5050017024005, "p50Seconds": 4803.93820416, "p90Seconds": 6004.9227552, "baseSeconds": 4803.93820416, "learnedFrom": 0}, "suggestions": {"name": "heron-fast-01"}}', '[]', 'tester', '2026-11-25 15:53:10.143103+00', '2026-11-25 15:53:10.143103+00', '2026-11-25 15:53:10.15126+00', '2026-11-28 10:17:03.541+00', '2026-11-25 15:53:11.639584+00', '2026-11-29 00:54:25.558+00', false, false, '{"task": "/redfish/v1/TaskService/Tasks/1", "poolId": "01a21369-2fcf-73c5-b956-c90f67441166", "poolLocator": "/redfish/v1/Storage/1/StoragePools/1-4f57"}', NULL, NULL, NULL);
INSERT INTO public.changes OVERRIDING SYSTEM VALUE VALUES ('01a21369-35dd-75b3-b8bb-5c2d44461e98', 7, 'provision-volume', 'proven', 'Provision register-data-01 to accession-register', '{"name": "register-data-01", "size": "4 TiB", "isThin": true, "poolId": "01a21369-2fcf-73c5-b956-c90f67441166", "purpose": "data", "hostGroupId": "01a21369-2bd7-7108-8781-01b1d511e133"}', '{"undo": {"how": "It can be removed; for 7 days it can then be brought back.", "possible": true}, "proof": "A host of accession-register logs in, finds it by its WWN, writes to it and reads the same back; a host outside must not see it.", "reads": [{"id": "01a21369-1bc7-72b6-a8fa-d27eb4b80b98", "kind": "system", "name": "heron", "revision": 1}, {"id": "01a21369-2fcf-73c5-b956-c90f67441166", "kind": "pool", "name": "heron-fast-01", "revision": 2}, {"id": "01a21369-2bd7-7108-8781-01b1d511e133", "kind": "host group", "name": "accession-register", "revision": 1}], "steps": [{"name": "create", "step": {"name": "register-data-01", "step": "create", "isThin": true, "systemId": "01a21369-1bc7-72b6-a8fa-d27eb4b80b98", "sizeBytes": "4398046511104", "poolLocator": "/redfish/v1/Storage/1/StoragePools/1-4f57"}, "words": "Create register-data-01, 4 TiB, thin", "forecast": {"boundBy": "requests", "p10Seconds": 0.3115, "p50Seconds": 0.35, "p90Seconds": 0.4375, "baseSeconds": 0.35, "learnedFrom": 0}}, {"name": "map", "step": {"step": "map", "systemId": "01a21369-1bc7-72b6-a8fa-d27eb4b80b98", "groupName": "accession-register", "initiators": ["iqn.2019-04.example.marrowfield:register-1"]}, "words": "Map it to accession-register", "forecast": {"boundBy": "requests", "p10Seconds": 0.3115, "p50Seconds": 0.35, "p90Seconds": 0.4375, "baseSeconds": 0.35, "learnedFrom": 0}}], "title": "Provision register-data-01 to accession-register", "checks": [{"why": "\"register-data-01\" is a good name for the volume.", "rule": "name", "field": "name", "holds": true, "level": "must"}, {"why": "The name is free.", "rule": "name-free", "field": "name", "holds": true, "level": "must"}, {"why": "heron-fast-01 is ready.", "rule": "pool-ready", "field": "poolId", "holds": true, "level": "must", "remedy": "Wait for it, or choose another pool."}, {"why": "heron answers.", "rule": "system-answers", "holds": true, "level": "must", "remedy": "Wait until it answers again; the draft is kept."}, {"why": "accession-register has 1 initiator.", "rule": "initiators", "field": "hostGroupId", "holds": true, "level": "must", "remedy": "Configure an initiator on the host and register it anew, or choose another group."}, {"why": "4 TiB is 4.4 TB.", "rule": "size-above-zero", "field": "size", "holds": true, "level": "must", "remedy": "Give a size above zero."}, {"why": "The size can be stated to the system exactly.", "rule": "size-statable", "field": "size", "holds": true, "level": "must", "remedy": "Make several volumes of at most 8 PiB."}, {"why": "heron-fast-01 will have promised 7% of its capacity.", "rule": "overcommit", "field": "size", "holds": true, "level": "warn", "remedy": "Watch its fill, or choose another pool."}, {"why": "56 TiB is left to write.", "rule": "room-now", "field": "poolId", "holds": true, "level": "warn"}, {"why": "No other change is at work on this.", "rule": "not-held", "holds": true, "level": "must", "remedy": "Wait for it to end, or stop it."}], "claims": ["volume:01a21369-1bc7-72b6-a8fa-d27eb4b80b98/register-data-01"], "oneWay": ["A volume can be made larger later, never smaller."], "sketch": {"of": "pool-fill", "poolName": "heron-fast-01", "usableBytes": "61597957534655", "writtenBytes": "0", "provisionedAfter": "4398046511104", "provisionedBefore": "0"}, "effects": [{"unit": "bytes", "after": "4398046511104", "label": "Provisioned from heron-fast-01", "before": "0", "figure": "provisionedBytes"}, {"unit": "ratio", "after": 0.07139922632385433, "label": "Provisioned ÷ capacity", "before": 0, "figure": "overcommit"}, {"unit": "bytes", "after": "61597957534655", "label": "Left to write in heron-fast-01", "before": "61597957534655", "figure": "freeBytes"}], "forecast": {"boundBy": "requests", "p10Seconds": 0.623, "p50Seconds": 0.7, "p90Seconds": 0.875, "baseSeconds": 0.7, "learnedFrom": 0}, "suggestions": {"name": "accession-register-data-01"}}', '[]', 'tester', '2026-11-25 15:53:11.903376+00', '2026-11-25 15:53:11.903376+00', '2026-11-25 15:53:11.911643+00', '2026-11-29 03:49:42.592+00', '2026-11-25 15:53:12.915177+00', '2026-11-29 13:40:23.558+00', false, false, '{"lun": "0", "naa": "66e2041dc1ec06e88d981574896128b2", "systemId": "01a21369-1bc7-72b6-a8fa-d27eb4b80b98", "volumeId": "01a21369-36ca-7388-a13d-63739453d808", "volumeLocator": "/redfish/v1/Storage/1/Volumes/1-05de", "mappingLocator": "/redfish/v1/Fabrics/SAN/Connections/1"}', NULL, NULL, NULL);
INSERT INTO public.changes OVERRIDING SYSTEM VALUE VALUES ('01a21369-1b20-712f-8c37-fc64a85254a3', 1, 'register-system', 'proven', 'Register heron', '{"name": "heron", "siteId": "", "probeId": "01a21369-1aa1-752d-8465-bd6ca1bd8f11", "acceptedFingerprint": "", "isPlainHttpAccepted": true}', '{"undo": {"how": "Nothing is changed on the system itself. It can be taken out of the estate again.", "possible": true}, "proof": "It is asked anew who it is, and its drives are compared with what was kept, serial number by serial number.", "reads": [], "steps": [{"name": "enrol", "step": {"name": "heron", "step": "enrol", "siteId": "", "probeId": "01a21369-1aa1-752d-8465-bd6ca1bd8f11"}, "words": "Take it into the estate", "forecast": {"boundBy": "requests", "p10Seconds": 0.026699999999999998, "p50Seconds": 0.03, "p90Seconds": 0.0375, "baseSeconds": 0.03, "learnedFrom": 0}}, {"name": "read", "step": {"step": "read"}, "words": "Read all that it has", "forecast": {"boundBy": "requests", "p10Seconds": 0.23318000000000003, "p50Seconds": 0.262, "p90Seconds": 0.3275, "baseSeconds": 0.262, "learnedFrom": 0}}], "title": "Register heron", "checks": [{"why": "Tallis & Thorne Ardea F24, serial 19AF628DCC, answered at http://127.0.0.1:33433.", "rule": "looked-at", "holds": true, "level": "must"}, {"why": "\"heron\" is a good name for the system.", "rule": "name", "field": "name", "holds": true, "level": "must"}, {"why": "heron is free.", "rule": "name-free", "field": "name", "holds": true, "level": "must"}, {"why": "It is not registered yet.", "rule": "new", "holds": true, "level": "must", "remedy": ""}, {"why": "The address is plain HTTP: name, password and everything else can be read on the way.", "rule": "plain-http", "field": "isPlainHttpAccepted", "holds": true, "level": "must", "remedy": "Use an https address, or accept it for this system."}, {"why": "The site is one of the estate.", "rule": "site", "field": "siteId", "holds": true, "level": "must"}], "claims": ["name:heron", "uuid:19af628d-cc88-4921-8362-1605818cccd7"], "oneWay": [], "effects": [{"unit": "count", "after": 1, "label": "Systems in the estate", "before": 0, "figure": "systems"}, {"unit": "bytes", "after": "184356027039744", "label": "Raw capacity it brings", "before": null, "figure": "rawBytes"}, {"unit": "count", "after": 24, "label": "Drives it brings", "before": null, "figure": "drives"}], "forecast": {"boundBy": "requests", "p10Seconds": 0.25988, "p50Seconds": 0.29200000000000004, "p90Seconds": 0.365, "baseSeconds": 0.29200000000000004, "learnedFrom": 0}, "suggestions": {"name": "ardea-f24"}}', '[]', 'tester', '2026-11-25 15:53:05.057561+00', '2026-11-25 15:53:05.119183+00', '2026-11-25 15:53:05.123978+00', '2026-11-25 15:53:05.138+00', '2026-11-25 15:53:05.615181+00', '2026-11-25 15:53:05.614+00', false, false, '{"systemId": "01a21369-1bc7-72b6-a8fa-d27eb4b80b98"}', NULL, NULL, NULL);
INSERT INTO public.changes OVERRIDING SYSTEM VALUE VALUES ('01a21369-2b8e-7397-b436-c3bdfc964305', 3, 'register-host', 'proven', 'Register the host at http://127.0.0.1:38155', '{"groupName": "accession-register", "agentAddress": "http://127.0.0.1:38155"}', '{"undo": {"how": "Nothing is changed on the host.", "possible": false}, "proof": "The agent is asked for its initiators again.", "reads": [], "steps": [{"name": "enrol", "step": {"step": "enrol", "groupName": "accession-register", "agentAddress": "http://127.0.0.1:38155"}, "words": "Ask the host who it is and take it into the estate", "forecast": {"boundBy": "requests", "p10Seconds": 0.0801, "p50Seconds": 0.09, "p90Seconds": 0.11249999999999999, "baseSeconds": 0.09, "learnedFrom": 0}}], "title": "Register the host at http://127.0.0.1:38155", "checks": [{"why": "The address can be asked.", "rule": "address", "field": "agentAddress", "holds": true, "level": "must"}, {"why": "It is not registered yet.", "rule": "new", "field": "agentAddress", "holds": true, "level": "must"}, {"why": "\"accession-register\" is a good name for the host group.", "rule": "name", "field": "groupName", "holds": true, "level": "must"}, {"why": "The host group accession-register is new.", "rule": "group-known", "field": "groupName", "holds": false, "level": "warn"}], "claims": ["host:http://127.0.0.1:38155"], "oneWay": [], "effects": [{"unit": "count", "after": 1, "label": "Hosts in the estate", "before": 0, "figure": "hosts"}], "forecast": {"boundBy": "requests", "p10Seconds": 0.0801, "p50Seconds": 0.09, "p90Seconds": 0.11249999999999999, "baseSeconds": 0.09, "learnedFrom": 0}}', '[]', 'tester', '2026-11-25 15:53:09.263478+00', '2026-11-25 15:53:09.263478+00', '2026-11-25 15:53:09.268059+00', '2026-11-28 01:16:27.541+00', '2026-11-25 15:53:09.39406+00', '2026-11-28 02:24:15.541+00', false, false, '{"hostId": "01a21369-2bda-7648-b7b4-2b8085bc765e"}', NULL, NULL, NULL);
INSERT INTO public.changes OVERRIDING SYSTEM VALUE VALUES ('01a21369-2c3d-77cb-80ff-6f44e6c8b6bc', 4, 'register-host', 'proven', 'Register the host at http://127.0.0.1:38909', '{"groupName": "reading-room", "agentAddress": "http://127.0.0.1:38909"}', '{"undo": {"how": "Nothing is changed on the host.", "possible": false}, "proof": "The agent is asked for its initiators again.", "reads": [], "steps": [{"name": "enrol", "step": {"step": "enrol", "groupName": "reading-room", "agentAddress": "http://127.0.0.1:38909"}, "words": "Ask the host who it is and take it into the estate", "forecast": {"boundBy": "requests", "p10Seconds": 0.08099999999999999, "p50Seconds": 0.0945, "p90Seconds": 0.1237505, "baseSeconds": 0.09, "learnedFrom": 1}}], "title": "Register the host at http://127.0.0.1:38909", "checks": [{"why": "The address can be asked.", "rule": "address", "field": "agentAddress", "holds": true, "level": "must"}, {"why": "It is not registered yet.", "rule": "new", "field": "agentAddress", "holds": true, "level": "must"}, {"why": "\"reading-room\" is a good name for the host group.", "rule": "name", "field": "groupName", "holds": true, "level": "must"}, {"why": "The host group reading-room is new.", "rule": "group-known", "field": "groupName", "holds": false, "level": "warn"}], "claims": ["host:http://127.0.0.1:38909"], "oneWay": [], "effects": [{"unit": "count", "after": 2, "label": "Hosts in the estate", "before": 1, "figure": "hosts"}], "forecast": {"boundBy": "requests", "p10Seconds": 0.08099999999999999, "p50Seconds": 0.0945, "p90Seconds": 0.1237505, "baseSeconds": 0.09, "learnedFrom": 1}}', '[]', 'tester', '2026-11-25 15:53:09.438367+00', '2026-11-25 15:53:09.438367+00', '2026-11-25 15:53:09.442624+00', '2026-11-28 03:12:51.541+00', '2026-11-25 15:53:09.592473+00', '2026-11-28 04:23:03.541+00', false, false, '{"hostId": "01a21369-2ca8-728d-b284-0a0c06dd8e0f"}', NULL, NULL, NULL);
INSERT INTO public.changes OVERRIDING SYSTEM VALUE VALUES ('01a21369-2d0d-732a-91fa-7982628770fc', 5, 'register-host', 'proven', 'Register the host at http://127.0.0.1:38295', '{"groupName": "kiosk", "agentAddress": "http://127.0.0.1:38295"}', '{"undo": {"how": "Nothing is changed on the host.", "possible": false}, "proof": "The agent is asked for its initiators again.", "reads": [], "steps": [{"name": "enrol", "step": {"step": "enrol", "groupName": "kiosk", "agentAddress": "http://127.0.0.1:38295"}, "words": "Ask the host who it is and take it into the estate", "forecast": {"boundBy": "requests", "p10Seconds": 0.08099999999999999, "p50Seconds": 0.0945, "p90Seconds": 0.13792500000000002, "baseSeconds": 0.09, "learnedFrom": 2}}], "title": "Register the host at http://127.0.0.1:38295", "checks": [{"why": "The address can be asked.", "rule": "address", "field": "agentAddress", "holds": true, "level": "must"}, {"why": "It is not registered yet.", "rule": "new", "field": "agentAddress", "holds": true, "level": "must"}, {"why": "\"kiosk\" is a good name for the host group.", "rule": "name", "field": "groupName", "holds": true, "level": "must"}, {"why": "The host group kiosk is new.", "rule": "group-known", "field": "groupName", "holds": false, "level": "warn"}], "claims": ["host:http://127.0.0.1:38295"], "oneWay": [], "effects": [{"unit": "count", "after": 3, "label": "Hosts in the estate", "before": 2, "figure": "hosts"}], "forecast": {"boundBy": "requests", "p10Seconds": 0.08099999999999999, "p50Seconds": 0.0945, "p90Seconds": 0.13792500000000002, "baseSeconds": 0.09, "learnedFrom": 2}}', '[]', 'tester', '2026-11-25 15:53:09.645761+00', '2026-11-25 15:53:09.645761+00', '2026-11-25 15:53:09.649908+00', '2026-11-28 05:11:03.541+00', '2026-11-25 15:53:09.96861+00', '2026-11-28 08:09:15.541+00', false, false, '{"hostId": "01a21369-2dda-769d-8f6c-662285dbeb36"}', NULL, NULL, NULL);
INSERT INTO public.controllers VALUES ('01a21369-1c23-74e5-ae44-a31cf1e008e9', '01a21369-1bc7-72b6-a8fa-d27eb4b80b98', '/redfish/v1/Storage/1/Controllers/A', 'Controller A', 'Ardea F24', '4.2.1', 'fine', 1);
INSERT INTO public.controllers VALUES ('01a21369-1c23-74e5-ae44-a4d4333e7356', '01a21369-1bc7-72b6-a8fa-d27eb4b80b98', '/redfish/v1/Storage/1/Controllers/B', 'Controller B', 'Ardea F24', '4.2.1', 'fine', 1);
INSERT INTO public.drives VALUES ('01a21369-1c55-7074-ad5e-ec747854111f', '01a21369-1bc7-72b6-a8fa-d27eb4b80b98', '/redfish/v1/Chassis/1/Drives/1-1', '01a21369-1c2b-753c-b651-cdaba0515c60', 1, 'Drive in bay 1', 'SSD', 'NVMe', 7681501126656, 'TT-N7680', '5975FDF938A7', '52f25c56f93341af', 'N3C1', 'fine', 'spare', '01a21369-2fcf-73c5-b956-c90f67441166', NULL, NULL, 28880, 0.17000000000000004, 2, NULL, false, false, 1, NULL, NULL);
INSERT INTO public.drives VALUES ('01a21369-1c55-7074-ad5e-f3282127900b', '01a21369-1bc7-72b6-a8fa-d27eb4b80b98', '/redfish/v1/Chassis/1/Drives/1-2', '01a21369-1c2b-753c-b651-cdaba0515c60', 2, 'Drive in bay 2', 'SSD', 'NVMe', 7681501126656, 'TT-N7680', 'D58A6EE75B30', '509d23ed9142705e', 'N3C1', 'fine', 'data', '01a21369-2fcf-73c5-b956-c90f67441166', 0, NULL, 9889, 0.08999999999999997, 2, NULL, false, false, 1, NULL, NULL);
INSERT INTO public.drives VALUES ('01a21369-1c55-7074-ad5e-f664477e3b2d', '01a21369-1bc7-72b6-a8fa-d27eb4b80b98', '/redfish/v1/Chassis/1/Drives/1-3', '01a21369-1c2b-753c-b651-cdaba0515c60', 3, 'Drive in bay 3', 'SSD', 'NVMe', 7681501126656, 'TT-N7680', 'AA05CF07929D', '5d35088ff94403ce', 'N3C1', 'fine', 'data', '01a21369-2fcf-73c5-b956-c90f67441166', 0, NULL, 31465, 0.12, 2, NULL, false, false, 1, NULL, NULL);
INSERT INTO public.drives VALUES ('01a21369-1c55-7074-ad5e-f8df3fd51e14', '01a21369-1bc7-72b6-a8fa-d27eb4b80b98', '/redfish/v1/Chassis/1/Drives/1-4', '01a21369-1c2b-753c-b651-cdaba0515c60', 4, 'Drive in bay 4', 'SSD', 'NVMe', 7681501126656, 'TT-N7680', 'F1E0431C6C92', '5774f3b97b25dece', 'N3C1', 'fine', 'data', '01a21369-2fcf-73c5-b956-c90f67441166', 0, NULL, 38449, 0.14, 2, NULL, false, false, 1, NULL, NULL);
INSERT INTO public.drives VALUES ('01a21369-1c56-7244-8639-ee4e9d75dca0', '01a21369-1bc7-72b6-a8fa-d27eb4b80b98', '/redfish/v1/Chassis/1/Drives/1-7', '01a21369-1c2b-753c-b651-cdaba0515c60', 7, 'Drive in bay 7', 'SSD', 'NVMe', 7681501126656, 'TT-N7680', 'EA675A1FF5A2', '5245e20813d1a016', 'N3C1', 'fine', 'data', '01a21369-2fcf-73c5-b956-c90f67441166', 0, NULL, 27364, 0.26, 2, NULL, false, false, 1, NULL, NULL);
INSERT INTO public.drives VALUES ('01a21369-1c56-7244-8639-f0f3622ccd9c', '01a21369-1bc7-72b6-a8fa-d27eb4b80b98', '/redfish/v1/Chassis/1/Drives/1-8', '01a21369-1c2b-753c-b651-cdaba0515c60', 8, 'Drive in bay 8', 'SSD', 'NVMe', 7681501126656, 'TT-N7680', '9C0BE820D3CE', '5296d3e48ff51f3d', 'N3C1', 'fine', 'data', '01a21369-2fcf-73c5-b956-c90f67441166', 0, NULL, 31883, 0.050000000000000044, 2, NULL, false, false, 1, NULL, NULL);
INSERT INTO public.drives VALUES ('01a21369-1c56-7244-8639-f492a3bb58ce', '01a21369-1bc7-72b6-a8fa-d27eb4b80b98', '/redfish/v1/Chassis/1/Drives/1-9', '01a21369-1c2b-753c-b651-cdaba0515c60', 9, 'Drive in bay 9', 'SSD', 'NVMe', 7681501126656, 'TT-N7680', '75A4D5DB8AF5', '5d67f189eb77e48c', 'N3C1', 'fine', 'data', '01a21369-2fcf-73c5-b956-c90f67441166', 0, NULL, 30745, 0.29000000000000004, 2, NULL, false, false, 1, NULL, NULL);
INSERT INTO public.drives VALUES ('01a21369-1c56-7244-8639-fb37369c4239', '01a21369-1bc7-72b6-a8fa-d27eb4b80b98', '/redfish/v1/Chassis/1/Drives/1-10', '01a21369-1c2b-753c-b651-cdaba0515c60', 10, 'Drive in bay 10', 'SSD', 'NVMe', 7681501126656, 'TT-N7680', '7CCE79E510AD', '5021cce1ac9ec316', 'N3C1', 'fine', 'data', '01a21369-2fcf-73c5-b956-c90f67441166', 0, NULL, 36308, 0.24, 2, NULL, false, false, 1, NULL, NULL);
INSERT INTO public.drives VALUES ('01a21369-1c56-7244-8639-fe73e62129c6', '01a21369-1bc7-72b6-a8fa-d27eb4b80b98', '/redfish/v1/Chassis/1/Drives/1-11', '01a21369-1c2b-753c-b651-cdaba0515c60', 11, 'Drive in bay 11', 'SSD', 'NVMe', 7681501126656, 'TT-N7680', 'C233D530B12A', '5b0c2706a1463368', 'N3C1', 'fine', 'data', '01a21369-2fcf-73c5-b956-c90f67441166', 0, NULL, 33867, 0.09999999999999998, 2, NULL, false, false, 1, NULL, NULL);
INSERT INTO public.drives VALUES ('01a21369-1c56-7244-863a-0309cbf23796', '01a21369-1bc7-72b6-a8fa-d27eb4b80b98', '/redfish/v1/Chassis/1/Drives/1-12', '01a21369-1c2b-753c-b651-cdaba0515c60', 12, 'Drive in bay 12', 'SSD', 'NVMe', 7681501126656, 'TT-N7680', '2BFA567A1020', '5f46acf330c430b1', 'N3C1', 'fine', 'data', '01a21369-2fcf-73c5-b956-c90f67441166', 0, NULL, 29289, 0.16000000000000003, 2, NULL, false, false, 1, NULL, NULL);
INSERT INTO public.drives VALUES ('01a21369-1c56-7244-863a-077a939804c4', '01a21369-1bc7-72b6-a8fa-d27eb4b80b98', '/redfish/v1/Chassis/1/Drives/1-13', '01a21369-1c2b-753c-b651-cdaba0515c60', 13, 'Drive in bay 13', 'SSD', 'NVMe', 7681501126656, 'TT-N7680', 'F1ECAB72BF7B', '5c3b23fcf0aaa21f', 'N3C1', 'fine', 'unassigned', NULL, NULL, NULL, 21313, 0.21999999999999997, 1, NULL, false, false, 1, NULL, NULL);
INSERT INTO public.drives VALUES ('01a21369-1c56-7244-863a-0ac6b722c8d8', '01a21369-1bc7-72b6-a8fa-d27eb4b80b98', '/redfish/v1/Chassis/1/Drives/1-14', '01a21369-1c2b-753c-b651-cdaba0515c60', 14, 'Drive in bay 14', 'SSD', 'NVMe', 7681501126656, 'TT-N7680', '2580BCE20CDD', '517c3a067c092bc2', 'N3C1', 'fine', 'unassigned', NULL, NULL, NULL, 18672, 0.20999999999999996, 1, NULL, false, false, 1, NULL, NULL);
INSERT INTO public.drives VALUES ('01a21369-1c56-7244-863a-0e1fb0eac5f1', '01a21369-1bc7-72b6-a8fa-d27eb4b80b98', '/redfish/v1/Chassis/1/Drives/1-15', '01a21369-1c2b-753c-b651-cdaba0515c60', 15, 'Drive in bay 15', 'SSD', 'NVMe', 7681501126656, 'TT-N7680', '8CC36827BB9B', '5b0281aa9adc7576', 'N3C1', 'fine', 'unassigned', NULL, NULL, NULL, 24784, 0.050000000000000044, 1, NULL, false, false, 1, NULL, NULL);
INSERT INTO public.drives VALUES ('01a21369-1c56-7244-863a-13f36640693a', '01a21369-1bc7-72b6-a8fa-d27eb4b80b98', '/redfish/v1/Chassis/1/Drives/1-16', '01a21369-1c2b-753c-b651-cdaba0515c60', 16, 'Drive in bay 16', 'SSD', 'NVMe', 7681501126656, 'TT-N7680', '14BBED47FB87', '57c3c9b0b6be8c63', 'N3C1', 'fine', 'unassigned', NULL, NULL, NULL, 32756, 0.06000000000000005, 1, NULL, false, false, 1, NULL, NULL);
INSERT INTO public.drives VALUES ('01a21369-1c56-7244-863a-157dd83fffb6', '01a21369-1bc7-72b6-a8fa-d27eb4b80b98', '/redfish/v1/Chassis/1/Drives/1-17', '01a21369-1c2b-753c-b651-cdaba0515c60', 17, 'Drive in bay 17', 'SSD', 'NVMe', 7681501126656, 'TT-N7680', '5E47B6477243', '5a7b310b820b1279', 'N3C1', 'fine', 'unassigned', NULL, NULL, NULL, 8303, 0.18000000000000005, 1, NULL, false, false, 1, NULL, NULL);
INSERT INTO public.drives VALUES ('01a21369-1c56-7244-863a-1b0c6cf14d7d', '01a21369-1bc7-72b6-a8fa-d27eb4b80b98', '/redfish/v1/Chassis/1/Drives/1-18', '01a21369-1c2b-753c-b651-cdaba0515c60', 18, 'Drive in bay 18', 'SSD', 'NVMe', 7681501126656, 'TT-N7680', '6987B3B1BA03', '524ea7772167c9d2', 'N3C1', 'fine', 'unassigned', NULL, NULL, NULL, 8453, 0.15000000000000002, 1, NULL, false, false, 1, NULL, NULL);
INSERT INTO public.drives VALUES ('01a21369-1c57-71ae-b41a-70a3d4a9262f', '01a21369-1bc7-72b6-a8fa-d27eb4b80b98', '/redfish/v1/Chassis/1/Drives/1-19', '01a21369-1c2b-753c-b651-cdaba0515c60', 19, 'Drive in bay 19', 'SSD', 'NVMe', 7681501126656, 'TT-N7680', 'EF140DC11ECA', '512e6491b00128bb', 'N3C1', 'fine', 'unassigned', NULL, NULL, NULL, 14610, 0.12, 1, NULL, false, false, 1, NULL, NULL);
INSERT INTO public.drives VALUES ('01a21369-1c57-71ae-b41a-75f21eb6d341', '01a21369-1bc7-72b6-a8fa-d27eb4b80b98', '/redfish/v1/Chassis/1/Drives/1-20', '01a21369-1c2b-753c-b651-cdaba0515c60', 20, 'Drive in bay 20', 'SSD', 'NVMe', 7681501126656, 'TT-N7680', 'FCC90DD9119B', '593832b698ddac22', 'N3C1', 'fine', 'unassigned', NULL, NULL, NULL, 21204, 0.28, 1, NULL, false, false, 1, NULL, NULL);
INSERT INTO public.drives VALUES ('01a21369-1c57-71ae-b41a-7a9ab83eb822', '01a21369-1bc7-72b6-a8fa-d27eb4b80b98', '/redfish/v1/Chassis/1/Drives/1-21', '01a21369-1c2b-753c-b651-cdaba0515c60', 21, 'Drive in bay 21', 'SSD', 'NVMe', 7681501126656, 'TT-N7680', 'CD9173DAFCE0', '54f6d33fc1095c6c', 'N3C1', 'fine', 'unassigned', NULL, NULL, NULL, 18047, 0.10999999999999999, 1, NULL, false, false, 1, NULL, NULL);
INSERT INTO public.drives VALUES ('01a21369-1c55-7074-ad5e-fe6cc5578af7', '01a21369-1bc7-72b6-a8fa-d27eb4b80b98', '/redfish/v1/Chassis/1/Drives/1-5', '01a21369-1c2b-753c-b651-cdaba0515c60', 5, 'Drive in bay 5', 'SSD', 'NVMe', 7681501126656, 'TT-N7680', 'D3632B0D51E8', '57a0401e0374a08e', 'N3C1', 'fine', 'data', '01a21369-2fcf-73c5-b956-c90f67441166', 0, NULL, 22721, 0.10999999999999999, 2, NULL, false, false, 1, NULL, NULL);
INSERT INTO public.drives VALUES ('01a21369-1c56-7244-8639-eb6037315984', '01a21369-1bc7-72b6-a8fa-d27eb4b80b98', '/redfish/v1/Chassis/1/Drives/1-6', '01a21369-1c2b-753c-b651-cdaba0515c60', 6, 'Drive in bay 6', 'SSD', 'NVMe', 7681501126656, 'TT-N7680', 'DE93AA045FC1', '5a1d86076b189916', 'N3C1', 'fine', 'data', '01a21369-2fcf-73c5-b956-c90f67441166', 0, NULL, 18664, 0.24, 2, NULL, false, false, 1, NULL, NULL);
INSERT INTO public.drives VALUES ('01a21369-1c57-71ae-b41a-84a4201c4f9b', '01a21369-1bc7-72b6-a8fa-d27eb4b80b98', '/redfish/v1/Chassis/1/Drives/1-24', '01a21369-1c2b-753c-b651-cdaba0515c60', 24, 'Drive in bay 24', 'SSD', 'NVMe', 7681501126656, 'TT-N7680', '8877B64F0BC3', '5017247f6ec3903f', 'N3C1', 'fine', 'unassigned', NULL, NULL, NULL, 28630, 0.29000000000000004, 1, NULL, false, false, 1, NULL, NULL);
INSERT INTO public.drives VALUES ('01a21369-1c57-71ae-b41a-7f8a987df81e', '01a21369-1bc7-72b6-a8fa-d27eb4b80b98', '/redfish/v1/Chassis/1/Drives/1-22', '01a21369-1c2b-753c-b651-cdaba0515c60', 22, 'Drive in bay 22', 'SSD', 'NVMe', 7681501126656, 'TT-N7680', '7CEC3CC8FB3D', '58a4de8261a40da2', 'N3C1', 'fine', 'unassigned', NULL, NULL, NULL, 24751, 0.27, 1, NULL, false, false, 1, NULL, NULL);
INSERT INTO public.drives VALUES ('01a21369-1c57-71ae-b41a-81670932871d', '01a21369-1bc7-72b6-a8fa-d27eb4b80b98', '/redfish/v1/Chassis/1/Drives/1-23', '01a21369-1c2b-753c-b651-cdaba0515c60', 23, 'Drive in bay 23', 'SSD', 'NVMe', 7681501126656, 'TT-N7680', '02550E1128CF', '5ca50bf0b3920d2f', 'N3C1', 'fine', 'unassigned', NULL, NULL, NULL, 25703, 0.25, 1, NULL, false, false, 1, NULL, NULL);
INSERT INTO public.enclosures VALUES ('01a21369-1c2b-753c-b651-cdaba0515c60', '01a21369-1bc7-72b6-a8fa-d27eb4b80b98', '/redfish/v1/Chassis/1', 'Enclosure 1', 24, 24, 1);
INSERT INTO public.evidence OVERRIDING SYSTEM VALUE VALUES (1, '01a21369-1b20-712f-8c37-fc64a85254a3', 'heron states the UUID that it was registered by', true, '{"kept": "19af628d-cc88-4921-8362-1605818cccd7", "stated": "19af628d-cc88-4921-8362-1605818cccd7"}', '2026-11-25 15:53:05.523949+00');
INSERT INTO public.evidence OVERRIDING SYSTEM VALUE VALUES (2, '01a21369-1b20-712f-8c37-fc64a85254a3', 'Every drive that it states is in the records', true, '{"kept": "24", "stated": "24", "missing": ""}', '2026-11-25 15:53:05.526963+00');
INSERT INTO public.evidence OVERRIDING SYSTEM VALUE VALUES (3, '01a21369-2b8e-7397-b436-c3bdfc964305', 'The records hold the host''s own initiators', true, '{"kept": "iqn.2019-04.example.marrowfield:register-1", "stated": "iqn.2019-04.example.marrowfield:register-1"}', '2026-11-25 15:53:09.376023+00');
INSERT INTO public.evidence OVERRIDING SYSTEM VALUE VALUES (4, '01a21369-2c3d-77cb-80ff-6f44e6c8b6bc', 'The records hold the host''s own initiators', true, '{"kept": "iqn.2019-04.example.marrowfield:desk-1", "stated": "iqn.2019-04.example.marrowfield:desk-1"}', '2026-11-25 15:53:09.5748+00');
INSERT INTO public.evidence OVERRIDING SYSTEM VALUE VALUES (5, '01a21369-2d0d-732a-91fa-7982628770fc', 'The records hold the host''s own initiators', true, '{"kept": "", "stated": ""}', '2026-11-25 15:53:09.914871+00');
INSERT INTO public.evidence OVERRIDING SYSTEM VALUE VALUES (6, '01a21369-2efe-72a8-8617-28c864dd85c6', 'heron-fast-01 is ready', true, '{"state": "ready"}', '2026-11-25 15:53:11.512195+00');
INSERT INTO public.evidence OVERRIDING SYSTEM VALUE VALUES (7, '01a21369-2efe-72a8-8617-28c864dd85c6', 'It holds exactly the chosen drives', true, '{"held": "12", "chosen": "12"}', '2026-11-25 15:53:11.516274+00');
INSERT INTO public.evidence OVERRIDING SYSTEM VALUE VALUES (8, '01a21369-2efe-72a8-8617-28c864dd85c6', 'Its usable space is what was planned', true, '{"statedBytes": "69133510139904", "plannedBytes": "69133510139904"}', '2026-11-25 15:53:11.519034+00');
INSERT INTO public.evidence OVERRIDING SYSTEM VALUE VALUES (9, '01a21369-35dd-75b3-b8bb-5c2d44461e98', 'The system states the volume with the size that was asked for', true, '{"wwn": "66e2041dc1ec06e88d981574896128b2", "askedBytes": "4398046511104", "statedBytes": "4398046511104"}', '2026-11-25 15:53:12.836964+00');
INSERT INTO public.evidence OVERRIDING SYSTEM VALUE VALUES (10, '01a21369-35dd-75b3-b8bb-5c2d44461e98', 'register-1 sees the volume with its full size', true, '{"lun": "0", "wwn": "66e2041dc1ec06e88d981574896128b2", "path": "/dev/disk/by-id/wwn-0x66e2041dc1ec06e88d981574896128b2", "seenBytes": "4398046511104", "expectedBytes": "4398046511104"}', '2026-11-25 15:53:12.838434+00');
INSERT INTO public.evidence OVERRIDING SYSTEM VALUE VALUES (11, '01a21369-35dd-75b3-b8bb-5c2d44461e98', 'register-1 writes 1 MiB at byte 0 and reads the same back', true, '{"readSha256": "7c376ae255b356858bb86f1b9d52d2511cae1bbeadd76c5e4577b2ccb5501333", "lengthBytes": "1048576", "offsetBytes": "0", "writtenSha256": "7c376ae255b356858bb86f1b9d52d2511cae1bbeadd76c5e4577b2ccb5501333"}', '2026-11-25 15:53:12.839689+00');
INSERT INTO public.evidence OVERRIDING SYSTEM VALUE VALUES (12, '01a21369-35dd-75b3-b8bb-5c2d44461e98', 'register-1 writes 1 MiB at byte 2199023255552 and reads the same back', true, '{"readSha256": "3059cdea150fc0c1ee88c7a4a433c61752e92fbe26ed3d192b45de1d8c0bf73a", "lengthBytes": "1048576", "offsetBytes": "2199023255552", "writtenSha256": "3059cdea150fc0c1ee88c7a4a433c61752e92fbe26ed3d192b45de1d8c0bf73a"}', '2026-11-25 15:53:12.840802+00');
INSERT INTO public.evidence OVERRIDING SYSTEM VALUE VALUES (13, '01a21369-35dd-75b3-b8bb-5c2d44461e98', 'register-1 writes 1 MiB at byte 4398045462528 and reads the same back', true, '{"readSha256": "3c1fd2bcd78c5396de6b0280ea4be7ecdfebfd7127a1bfda1ef03b16e2a68a3c", "lengthBytes": "1048576", "offsetBytes": "4398045462528", "writtenSha256": "3c1fd2bcd78c5396de6b0280ea4be7ecdfebfd7127a1bfda1ef03b16e2a68a3c"}', '2026-11-25 15:53:12.841879+00');
INSERT INTO public.evidence OVERRIDING SYSTEM VALUE VALUES (14, '01a21369-35dd-75b3-b8bb-5c2d44461e98', 'desk-1, which is not in the group, does not see it', true, '{"wwn": "66e2041dc1ec06e88d981574896128b2", "seen": "nothing"}', '2026-11-25 15:53:12.848061+00');
INSERT INTO public.forecast_outcomes VALUES ('01a21369-1b20-712f-8c37-fc64a85254a3', 'register-system', 0.29200000000000004, 0.25988, 0.29200000000000004, 0.365, 0.491203, '2026-11-25 15:53:05.615181+00');
INSERT INTO public.forecast_outcomes VALUES ('01a21369-2b8e-7397-b436-c3bdfc964305', 'register-host', 0.09, 0.0801, 0.09, 0.11249999999999999, 0.126001, '2026-11-25 15:53:09.39406+00');
INSERT INTO public.forecast_outcomes VALUES ('01a21369-2c3d-77cb-80ff-6f44e6c8b6bc', 'register-host', 0.09, 0.08099999999999999, 0.0945, 0.1237505, 0.149849, '2026-11-25 15:53:09.592473+00');
INSERT INTO public.forecast_outcomes VALUES ('01a21369-2d0d-732a-91fa-7982628770fc', 'register-host', 0.09, 0.08099999999999999, 0.0945, 0.13792500000000002, 0.318702, '2026-11-25 15:53:09.96861+00');
INSERT INTO public.forecast_outcomes VALUES ('01a21369-2efe-72a8-8617-28c864dd85c6', 'create-pool', 4803.93820416, 4275.5050017024005, 4803.93820416, 6004.9227552, 52642.017, '2026-11-25 15:53:11.639584+00');
INSERT INTO public.forecast_outcomes VALUES ('01a21369-35dd-75b3-b8bb-5c2d44461e98', 'provision-volume', 0.7, 0.623, 0.7, 0.875, 1.003534, '2026-11-25 15:53:12.915177+00');
INSERT INTO public.host_groups VALUES ('01a21369-2bd7-7108-8781-01b1d511e133', 'accession-register', 1);
INSERT INTO public.host_groups VALUES ('01a21369-2ca6-77ed-a72c-6a5409fd2a76', 'reading-room', 1);
INSERT INTO public.host_groups VALUES ('01a21369-2dd0-71da-9961-fbbe28c10ad1', 'kiosk', 1);
INSERT INTO public.hosts VALUES ('01a21369-2bda-7648-b7b4-2b8085bc765e', '01a21369-2bd7-7108-8781-01b1d511e133', 'register-1', 'http://127.0.0.1:38155', 'Linux 6.1', '["iqn.2019-04.example.marrowfield:register-1"]', '01a21369-2b8e-7397-b436-c3bdfc964305/0', 1);
INSERT INTO public.hosts VALUES ('01a21369-2ca8-728d-b284-0a0c06dd8e0f', '01a21369-2ca6-77ed-a72c-6a5409fd2a76', 'desk-1', 'http://127.0.0.1:38909', 'Linux 6.1', '["iqn.2019-04.example.marrowfield:desk-1"]', '01a21369-2c3d-77cb-80ff-6f44e6c8b6bc/0', 1);
INSERT INTO public.hosts VALUES ('01a21369-2dda-769d-8f6c-662285dbeb36', '01a21369-2dd0-71da-9961-fbbe28c10ad1', 'kiosk-7', 'http://127.0.0.1:38295', 'Linux 6.1', '[]', '01a21369-2d0d-732a-91fa-7982628770fc/0', 1);
INSERT INTO public.mappings VALUES ('01a21369-3869-72a8-b8c7-98bbee369acd', '01a21369-1bc7-72b6-a8fa-d27eb4b80b98', '/redfish/v1/Fabrics/SAN/Connections/1', '01a21369-36ca-7388-a13d-63739453d808', '01a21369-2bd7-7108-8781-01b1d511e133', 'accession-register', 0, 1);
INSERT INTO public.migrations VALUES ('0001-estate', '2026-11-25 15:53:04.238573+00');
INSERT INTO public.migrations VALUES ('0002-changes', '2026-11-25 15:53:04.238573+00');
INSERT INTO public.migrations VALUES ('0003-access', '2026-11-25 15:53:04.238573+00');
INSERT INTO public.migrations VALUES ('0004-nodes', '2026-11-25 15:53:04.238573+00');
INSERT INTO public.pools VALUES ('01a21369-2fcf-73c5-b956-c90f67441166', '01a21369-1bc7-72b6-a8fa-d27eb4b80b98', '/redfish/v1/Storage/1/StoragePools/1-4f57', 'heron-fast-01', '{"kind": "parity", "parityDrives": 2}', '{"media": "SSD", "protocol": "NVMe"}', '[11]', 1, 'fine', 92178013519872, 69133510139904, 0, 4398046511104, 691335101399, 6844217503850, 15363002253312, 0, 7681501126656, 3, NULL, 0);
INSERT INTO public.ports VALUES ('01a21369-1c61-77f9-8a09-1316e05ed7a9', '01a21369-1bc7-72b6-a8fa-d27eb4b80b98', '/redfish/v1/Storage/1/Controllers/A/Ports/A1', 'Port A1', 'Ethernet', 25000000000, true, '10.60.1.11', 'iqn.2019-04.example.marrowfield:heron.a1', 1);
INSERT INTO public.ports VALUES ('01a21369-1c61-77f9-8a09-17493daf700d', '01a21369-1bc7-72b6-a8fa-d27eb4b80b98', '/redfish/v1/Storage/1/Controllers/A/Ports/A2', 'Port A2', 'Ethernet', 25000000000, true, '10.60.1.12', 'iqn.2019-04.example.marrowfield:heron.a2', 1);
INSERT INTO public.ports VALUES ('01a21369-1c61-77f9-8a09-188854f7d83a', '01a21369-1bc7-72b6-a8fa-d27eb4b80b98', '/redfish/v1/Storage/1/Controllers/B/Ports/B1', 'Port B1', 'Ethernet', 25000000000, true, '10.60.1.21', 'iqn.2019-04.example.marrowfield:heron.b1', 1);
INSERT INTO public.ports VALUES ('01a21369-1c61-77f9-8a09-1f6e7c6a61e8', '01a21369-1bc7-72b6-a8fa-d27eb4b80b98', '/redfish/v1/Storage/1/Controllers/B/Ports/B2', 'Port B2', 'Ethernet', 25000000000, true, '10.60.1.22', 'iqn.2019-04.example.marrowfield:heron.b2', 1);
INSERT INTO public.probes VALUES ('01a21369-1aa1-752d-8465-bd6ca1bd8f11', '2026-11-25 15:53:04.933246+00', '{"uuid": "19af628d-cc88-4921-8362-1605818cccd7", "maker": "Tallis & Thorne", "model": "Ardea F24", "pools": 0, "drives": [{"bytes": "184356027039744", "count": 24, "words": "7.68 TB NVMe, unassigned"}], "serial": "19AF628DCC", "address": "http://127.0.0.1:33433", "volumes": 0, "firmware": "4.2.1", "enclosures": 1, "controllers": 2, "isEncrypted": false, "redfishVersion": "1.19.0", "certificateTrouble": null, "certificateFingerprint": null}', 'http://127.0.0.1:33433', '19af628d-cc88-4921-8362-1605818cccd7', NULL, 'admin', '\x3eb0621d5853b258d96983cc5333405c3524bff591dfe51ba79d8e3fd2f997aa1139fb1ee9ba', 'tester');
INSERT INTO public.settings VALUES ('volume-naming', '"{group}-{purpose}-{nn}"');
INSERT INTO public.settings VALUES ('holding-days', '7');
INSERT INTO public.settings VALUES ('first-sign-in', '"5055-5951"');
INSERT INTO public.systems VALUES ('01a21369-1bc7-72b6-a8fa-d27eb4b80b98', NULL, 'heron', 'http://127.0.0.1:33433', 'Tallis & Thorne', 'Ardea F24', '19AF628DCC', '19af628d-cc88-4921-8362-1605818cccd7', '4.2.1', 'answering', NULL, '2026-11-25 15:53:05.224538+00', NULL, 'admin', '\x592efa03310e7034083d61125daf09601297c0b150656367436c968eba6c4e0226c54833805b', '01a21369-1b20-712f-8c37-fc64a85254a3/0', '[{"name": "Enclosure 1, Inlet air", "unit": "Cel", "reading": 21.5, "cautionAt": 40}, {"name": "Enclosure 1, Outlet air", "unit": "Cel", "reading": 29.2, "cautionAt": 40}]', '2026-11-25 15:53:11.057+00', '2026-11-28 19:05:39.541+00', 36017.24137931035, 1, NULL);
INSERT INTO public.volumes VALUES ('01a21369-36ca-7388-a13d-63739453d808', '01a21369-1bc7-72b6-a8fa-d27eb4b80b98', '/redfish/v1/Storage/1/Volumes/1-05de', '01a21369-2fcf-73c5-b956-c90f67441166', 'register-data-01', '66e2041dc1ec06e88d981574896128b2', 4398046511104, true, 0, 'in use', NULL, 1, 0);
SELECT pg_catalog.setval('public.change_journal_id_seq', 20, true);
SELECT pg_catalog.setval('public.changes_number_seq', 7, true);
SELECT pg_catalog.setval('public.evidence_id_seq', 14, true);
SELECT pg_catalog.setval('public.findings_id_seq', 1, false);
SELECT pg_catalog.setval('public.sign_in_attempts_id_seq', 1, false);
ALTER TABLE ONLY public.administrators
    ADD CONSTRAINT administrators_name_key UNIQUE (name);
ALTER TABLE ONLY public.administrators
    ADD CONSTRAINT administrators_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.api_tokens
    ADD CONSTRAINT api_tokens_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.api_tokens
    ADD CONSTRAINT api_tokens_token_hash_key UNIQUE (token_hash);
ALTER TABLE ONLY public.catalogues
    ADD CONSTRAINT catalogues_import_key_key UNIQUE (import_key);
ALTER TABLE ONLY public.catalogues
    ADD CONSTRAINT catalogues_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.change_journal
    ADD CONSTRAINT change_journal_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.changes
    ADD CONSTRAINT changes_number_key UNIQUE (number);
ALTER TABLE ONLY public.changes
    ADD CONSTRAINT changes_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.claims
    ADD CONSTRAINT claims_pkey PRIMARY KEY (claim);
ALTER TABLE ONLY public.controllers
    ADD CONSTRAINT controllers_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.controllers
    ADD CONSTRAINT controllers_system_id_locator_key UNIQUE (system_id, locator);
ALTER TABLE ONLY public.drives
    ADD CONSTRAINT drives_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.drives
    ADD CONSTRAINT drives_system_id_locator_key UNIQUE (system_id, locator);
ALTER TABLE ONLY public.enclosures
    ADD CONSTRAINT enclosures_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.enclosures
    ADD CONSTRAINT enclosures_system_id_locator_key UNIQUE (system_id, locator);
ALTER TABLE ONLY public.evidence
    ADD CONSTRAINT evidence_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.findings
    ADD CONSTRAINT findings_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.forecast_outcomes
    ADD CONSTRAINT forecast_outcomes_pkey PRIMARY KEY (change_id);
ALTER TABLE ONLY public.host_groups
    ADD CONSTRAINT host_groups_name_key UNIQUE (name);
ALTER TABLE ONLY public.host_groups
    ADD CONSTRAINT host_groups_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.hosts
    ADD CONSTRAINT hosts_agent_address_key UNIQUE (agent_address);
ALTER TABLE ONLY public.hosts
    ADD CONSTRAINT hosts_enrol_key_key UNIQUE (enrol_key);
ALTER TABLE ONLY public.hosts
    ADD CONSTRAINT hosts_name_key UNIQUE (name);
ALTER TABLE ONLY public.hosts
    ADD CONSTRAINT hosts_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.mappings
    ADD CONSTRAINT mappings_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.mappings
    ADD CONSTRAINT mappings_system_id_locator_key UNIQUE (system_id, locator);
ALTER TABLE ONLY public.migrations
    ADD CONSTRAINT migrations_pkey PRIMARY KEY (name);
ALTER TABLE ONLY public.name_answers
    ADD CONSTRAINT name_answers_pkey PRIMARY KEY (query, kind);
ALTER TABLE ONLY public.node_ports
    ADD CONSTRAINT node_ports_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.node_ports
    ADD CONSTRAINT node_ports_system_id_locator_key UNIQUE (system_id, locator);
ALTER TABLE ONLY public.nodes
    ADD CONSTRAINT nodes_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.nodes
    ADD CONSTRAINT nodes_system_id_locator_key UNIQUE (system_id, locator);
ALTER TABLE ONLY public.path_probes
    ADD CONSTRAINT path_probes_pkey PRIMARY KEY (system_id);
ALTER TABLE ONLY public.pools
    ADD CONSTRAINT pools_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.pools
    ADD CONSTRAINT pools_system_id_locator_key UNIQUE (system_id, locator);
ALTER TABLE ONLY public.ports
    ADD CONSTRAINT ports_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.ports
    ADD CONSTRAINT ports_system_id_locator_key UNIQUE (system_id, locator);
ALTER TABLE ONLY public.probes
    ADD CONSTRAINT probes_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.rebuilds
    ADD CONSTRAINT rebuilds_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.rebuilds
    ADD CONSTRAINT rebuilds_system_id_locator_key UNIQUE (system_id, locator);
ALTER TABLE ONLY public.sessions
    ADD CONSTRAINT sessions_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.settings
    ADD CONSTRAINT settings_pkey PRIMARY KEY (key);
ALTER TABLE ONLY public.sign_in_attempts
    ADD CONSTRAINT sign_in_attempts_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.signed_exceptions
    ADD CONSTRAINT signed_exceptions_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.signed_exceptions
    ADD CONSTRAINT signed_exceptions_sign_key_key UNIQUE (sign_key);
ALTER TABLE ONLY public.sites
    ADD CONSTRAINT sites_name_key UNIQUE (name);
ALTER TABLE ONLY public.sites
    ADD CONSTRAINT sites_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.switch_ports
    ADD CONSTRAINT switch_ports_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.switch_ports
    ADD CONSTRAINT switch_ports_system_id_locator_key UNIQUE (system_id, locator);
ALTER TABLE ONLY public.switches
    ADD CONSTRAINT switches_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.switches
    ADD CONSTRAINT switches_system_id_locator_key UNIQUE (system_id, locator);
ALTER TABLE ONLY public.systems
    ADD CONSTRAINT systems_address_key UNIQUE (address);
ALTER TABLE ONLY public.systems
    ADD CONSTRAINT systems_enrol_key_key UNIQUE (enrol_key);
ALTER TABLE ONLY public.systems
    ADD CONSTRAINT systems_name_key UNIQUE (name);
ALTER TABLE ONLY public.systems
    ADD CONSTRAINT systems_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.systems
    ADD CONSTRAINT systems_uuid_key UNIQUE (uuid);
ALTER TABLE ONLY public.volumes
    ADD CONSTRAINT volumes_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.volumes
    ADD CONSTRAINT volumes_system_id_locator_key UNIQUE (system_id, locator);
CREATE INDEX catalogues_by_maker ON public.catalogues USING btree (maker, issued_at DESC);
CREATE INDEX change_journal_by_change ON public.change_journal USING btree (change_id, id);
CREATE INDEX changes_by_state ON public.changes USING btree (state, number DESC);
CREATE INDEX changes_latest ON public.changes USING btree (number DESC);
CREATE INDEX claims_by_change ON public.claims USING btree (change_id);
CREATE INDEX drives_by_pool ON public.drives USING btree (pool_id);
CREATE INDEX drives_by_system ON public.drives USING btree (system_id, enclosure_id, bay);
CREATE INDEX evidence_by_change ON public.evidence USING btree (change_id, id);
CREATE INDEX findings_by_system ON public.findings USING btree (system_id, since DESC);
CREATE UNIQUE INDEX findings_standing ON public.findings USING btree (key) WHERE (cleared_at IS NULL);
CREATE INDEX forecast_outcomes_by_kind ON public.forecast_outcomes USING btree (kind, ended_at DESC);
CREATE INDEX hosts_by_group ON public.hosts USING btree (host_group_id);
CREATE INDEX mappings_by_volume ON public.mappings USING btree (volume_id);
CREATE INDEX node_ports_by_node ON public.node_ports USING btree (node_id);
CREATE INDEX pools_by_system ON public.pools USING btree (system_id);
CREATE INDEX probes_by_age ON public.probes USING btree (at);
CREATE INDEX rebuilds_by_pool ON public.rebuilds USING btree (pool_id, started_estate_at DESC);
CREATE INDEX sessions_by_administrator ON public.sessions USING btree (administrator_id);
CREATE INDEX sign_in_attempts_recent ON public.sign_in_attempts USING btree (at DESC);
CREATE INDEX signed_exceptions_by_finding ON public.signed_exceptions USING btree (finding_key, until);
CREATE INDEX volumes_by_naa ON public.volumes USING btree (naa);
CREATE INDEX volumes_by_naa_parts ON public.volumes USING gin (naa public.gin_trgm_ops);
CREATE INDEX volumes_by_name ON public.volumes USING btree (name text_pattern_ops, id);
CREATE INDEX volumes_by_name_parts ON public.volumes USING gin (name public.gin_trgm_ops);
CREATE INDEX volumes_by_pool ON public.volumes USING btree (pool_id);
CREATE INDEX volumes_by_size ON public.volumes USING btree (size_bytes, id);
CREATE INDEX volumes_by_sorted_name ON public.volumes USING btree (name, id);
CREATE INDEX volumes_by_written ON public.volumes USING btree (written_bytes, id);
CREATE INDEX volumes_in_holding ON public.volumes USING btree (holding_until) WHERE (state = 'holding'::text);
CREATE TRIGGER append_only BEFORE DELETE OR UPDATE ON public.change_journal FOR EACH ROW EXECUTE FUNCTION public.refuse_rewriting();
CREATE TRIGGER append_only BEFORE DELETE OR UPDATE ON public.evidence FOR EACH ROW EXECUTE FUNCTION public.refuse_rewriting();
CREATE TRIGGER guard BEFORE UPDATE ON public.changes FOR EACH ROW EXECUTE FUNCTION public.guard_change();
CREATE TRIGGER revision BEFORE UPDATE ON public.controllers FOR EACH ROW EXECUTE FUNCTION public.bump_revision('{revision}');
CREATE TRIGGER revision BEFORE UPDATE ON public.drives FOR EACH ROW EXECUTE FUNCTION public.bump_revision('{revision,power_on_hours,wear_ratio,is_lit}');
CREATE TRIGGER revision BEFORE UPDATE ON public.enclosures FOR EACH ROW EXECUTE FUNCTION public.bump_revision('{revision}');
CREATE TRIGGER revision BEFORE UPDATE ON public.host_groups FOR EACH ROW EXECUTE FUNCTION public.bump_revision('{revision}');
CREATE TRIGGER revision BEFORE UPDATE ON public.hosts FOR EACH ROW EXECUTE FUNCTION public.bump_revision('{revision}');
CREATE TRIGGER revision BEFORE UPDATE ON public.mappings FOR EACH ROW EXECUTE FUNCTION public.bump_revision('{revision}');
CREATE TRIGGER revision BEFORE UPDATE ON public.node_ports FOR EACH ROW EXECUTE FUNCTION public.bump_revision('{revision}');
CREATE TRIGGER revision BEFORE UPDATE ON public.nodes FOR EACH ROW EXECUTE FUNCTION public.bump_revision('{revision,clock_offset_seconds}');
CREATE TRIGGER revision BEFORE UPDATE ON public.pools FOR EACH ROW EXECUTE FUNCTION public.bump_revision('{revision,written_bytes}');
CREATE TRIGGER revision BEFORE UPDATE ON public.ports FOR EACH ROW EXECUTE FUNCTION public.bump_revision('{revision}');
CREATE TRIGGER revision BEFORE UPDATE ON public.sites FOR EACH ROW EXECUTE FUNCTION public.bump_revision('{revision}');
CREATE TRIGGER revision BEFORE UPDATE ON public.switch_ports FOR EACH ROW EXECUTE FUNCTION public.bump_revision('{revision}');
CREATE TRIGGER revision BEFORE UPDATE ON public.switches FOR EACH ROW EXECUTE FUNCTION public.bump_revision('{revision}');
CREATE TRIGGER revision BEFORE UPDATE ON public.systems FOR EACH ROW EXECUTE FUNCTION public.bump_revision('{revision,seen_at,reach,reach_why,sensors,clock_wall_at,clock_system_at,clock_rate}');
CREATE TRIGGER revision BEFORE UPDATE ON public.volumes FOR EACH ROW EXECUTE FUNCTION public.bump_revision('{revision,written_bytes,lost_bytes}');
CREATE TRIGGER tell AFTER INSERT ON public.change_journal FOR EACH ROW EXECUTE FUNCTION public.tell_change();
CREATE TRIGGER tell AFTER INSERT OR UPDATE ON public.changes FOR EACH ROW EXECUTE FUNCTION public.tell_change();
CREATE TRIGGER tell AFTER INSERT OR DELETE OR UPDATE ON public.drives FOR EACH STATEMENT EXECUTE FUNCTION public.tell_estate();
CREATE TRIGGER tell AFTER INSERT ON public.evidence FOR EACH ROW EXECUTE FUNCTION public.tell_change();
CREATE TRIGGER tell AFTER INSERT OR DELETE OR UPDATE ON public.findings FOR EACH STATEMENT EXECUTE FUNCTION public.tell_estate();
CREATE TRIGGER tell AFTER INSERT OR DELETE OR UPDATE ON public.hosts FOR EACH STATEMENT EXECUTE FUNCTION public.tell_estate();
CREATE TRIGGER tell AFTER INSERT OR DELETE OR UPDATE ON public.mappings FOR EACH STATEMENT EXECUTE FUNCTION public.tell_estate();
CREATE TRIGGER tell AFTER INSERT OR DELETE OR UPDATE ON public.node_ports FOR EACH STATEMENT EXECUTE FUNCTION public.tell_estate();
CREATE TRIGGER tell AFTER INSERT OR DELETE OR UPDATE ON public.nodes FOR EACH STATEMENT EXECUTE FUNCTION public.tell_estate();
CREATE TRIGGER tell AFTER INSERT OR DELETE OR UPDATE ON public.path_probes FOR EACH STATEMENT EXECUTE FUNCTION public.tell_estate();
CREATE TRIGGER tell AFTER INSERT OR DELETE OR UPDATE ON public.pools FOR EACH STATEMENT EXECUTE FUNCTION public.tell_estate();
CREATE TRIGGER tell AFTER INSERT OR DELETE OR UPDATE ON public.rebuilds FOR EACH STATEMENT EXECUTE FUNCTION public.tell_estate();
CREATE TRIGGER tell AFTER INSERT OR DELETE OR UPDATE ON public.switch_ports FOR EACH STATEMENT EXECUTE FUNCTION public.tell_estate();
CREATE TRIGGER tell AFTER INSERT OR DELETE OR UPDATE ON public.systems FOR EACH STATEMENT EXECUTE FUNCTION public.tell_estate();
CREATE TRIGGER tell AFTER INSERT OR DELETE OR UPDATE ON public.volumes FOR EACH STATEMENT EXECUTE FUNCTION public.tell_estate();
ALTER TABLE ONLY public.api_tokens
    ADD CONSTRAINT api_tokens_administrator_id_fkey FOREIGN KEY (administrator_id) REFERENCES public.administrators(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.change_journal
    ADD CONSTRAINT change_journal_change_id_fkey FOREIGN KEY (change_id) REFERENCES public.changes(id);
ALTER TABLE ONLY public.changes
    ADD CONSTRAINT changes_reverses_fkey FOREIGN KEY (reverses) REFERENCES public.changes(id);
ALTER TABLE ONLY public.claims
    ADD CONSTRAINT claims_change_id_fkey FOREIGN KEY (change_id) REFERENCES public.changes(id);
ALTER TABLE ONLY public.controllers
    ADD CONSTRAINT controllers_system_id_fkey FOREIGN KEY (system_id) REFERENCES public.systems(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.drives
    ADD CONSTRAINT drives_enclosure_id_fkey FOREIGN KEY (enclosure_id) REFERENCES public.enclosures(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.drives
    ADD CONSTRAINT drives_node_id_fkey FOREIGN KEY (node_id) REFERENCES public.nodes(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.drives
    ADD CONSTRAINT drives_pool_id_fkey FOREIGN KEY (pool_id) REFERENCES public.pools(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.drives
    ADD CONSTRAINT drives_system_id_fkey FOREIGN KEY (system_id) REFERENCES public.systems(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.enclosures
    ADD CONSTRAINT enclosures_system_id_fkey FOREIGN KEY (system_id) REFERENCES public.systems(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.evidence
    ADD CONSTRAINT evidence_change_id_fkey FOREIGN KEY (change_id) REFERENCES public.changes(id);
ALTER TABLE ONLY public.findings
    ADD CONSTRAINT findings_system_id_fkey FOREIGN KEY (system_id) REFERENCES public.systems(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.forecast_outcomes
    ADD CONSTRAINT forecast_outcomes_change_id_fkey FOREIGN KEY (change_id) REFERENCES public.changes(id);
ALTER TABLE ONLY public.hosts
    ADD CONSTRAINT hosts_host_group_id_fkey FOREIGN KEY (host_group_id) REFERENCES public.host_groups(id);
ALTER TABLE ONLY public.mappings
    ADD CONSTRAINT mappings_host_group_id_fkey FOREIGN KEY (host_group_id) REFERENCES public.host_groups(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.mappings
    ADD CONSTRAINT mappings_system_id_fkey FOREIGN KEY (system_id) REFERENCES public.systems(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.mappings
    ADD CONSTRAINT mappings_volume_id_fkey FOREIGN KEY (volume_id) REFERENCES public.volumes(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.node_ports
    ADD CONSTRAINT node_ports_node_id_fkey FOREIGN KEY (node_id) REFERENCES public.nodes(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.node_ports
    ADD CONSTRAINT node_ports_system_id_fkey FOREIGN KEY (system_id) REFERENCES public.systems(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.nodes
    ADD CONSTRAINT nodes_enclosure_id_fkey FOREIGN KEY (enclosure_id) REFERENCES public.enclosures(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.nodes
    ADD CONSTRAINT nodes_system_id_fkey FOREIGN KEY (system_id) REFERENCES public.systems(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.path_probes
    ADD CONSTRAINT path_probes_system_id_fkey FOREIGN KEY (system_id) REFERENCES public.systems(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.pools
    ADD CONSTRAINT pools_system_id_fkey FOREIGN KEY (system_id) REFERENCES public.systems(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.ports
    ADD CONSTRAINT ports_system_id_fkey FOREIGN KEY (system_id) REFERENCES public.systems(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.rebuilds
    ADD CONSTRAINT rebuilds_pool_id_fkey FOREIGN KEY (pool_id) REFERENCES public.pools(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.rebuilds
    ADD CONSTRAINT rebuilds_system_id_fkey FOREIGN KEY (system_id) REFERENCES public.systems(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.sessions
    ADD CONSTRAINT sessions_administrator_id_fkey FOREIGN KEY (administrator_id) REFERENCES public.administrators(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.switch_ports
    ADD CONSTRAINT switch_ports_switch_id_fkey FOREIGN KEY (switch_id) REFERENCES public.switches(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.switch_ports
    ADD CONSTRAINT switch_ports_system_id_fkey FOREIGN KEY (system_id) REFERENCES public.systems(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.switches
    ADD CONSTRAINT switches_system_id_fkey FOREIGN KEY (system_id) REFERENCES public.systems(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.systems
    ADD CONSTRAINT systems_site_id_fkey FOREIGN KEY (site_id) REFERENCES public.sites(id);
ALTER TABLE ONLY public.volumes
    ADD CONSTRAINT volumes_pool_id_fkey FOREIGN KEY (pool_id) REFERENCES public.pools(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.volumes
    ADD CONSTRAINT volumes_system_id_fkey FOREIGN KEY (system_id) REFERENCES public.systems(id) ON DELETE CASCADE;
