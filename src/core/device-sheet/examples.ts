/** Templates to begin with: plain text and a table, in no device's own language. */
export const EXAMPLE_TEMPLATES = [
  {
    name: "Check list",
    ending: "txt",
    text: `{{ name }} ({{ model }}), {{ place }}
{% if management %}answers at {{ management.address.address }}/{{ management.address.prefixLength }}
{% endif %}
VLANs
{% for vlan in vlans %}[ ] {{ vlan.vid }} {{ vlan.name }}
{% endfor %}
Ports
{% for port in ports %}{% if port.enabled %}[ ] {{ port.label }} ({{ port.softwareName }}): {% if port.pvid -%}
untagged {{ port.pvid }}{% else %}nothing untagged{% endif %}{% if port.tagged.size > 0 -%}
, tagged {{ port.tagged | join: " " }}{% endif %}{% if port.pluggedIn != "" -%}
, {{ port.pluggedIn }}{% endif %}
{% endif %}{% endfor %}
[ ] saved
`,
  },
  {
    name: "Port labels",
    ending: "csv",
    text: `port,plugged in,untagged,tagged
{% for port in ports %}"{{ name }} {{ port.label }}","{{ port.pluggedIn | replace: '"', "'" }}",{{ port.pvid -}}
,{{ port.tagged | join: " " }}
{% endfor %}`,
  },
] as const;
