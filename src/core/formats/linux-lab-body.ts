/** What every lab script has in common: it reads the tables above it. Plain shell, with nothing but iproute2. */
export const LAB_BODY = String.raw`
lab=${'$'}{KNOT_LAB:-kp}
# With KNOT_LAB_QUICK=1 the timers are the shortest that the kernel takes: roles are the same, and there sooner.
quick=${'$'}{KNOT_LAB_QUICK:-0}

die() { echo "$*" >&2; exit 2; }
in_ns() { ns=$1; shift; ip netns exec "$lab-$ns" "$@"; }
rows() { printf '%s\n' "$1" | sed '/^$/d'; }

# What the kernel at hand can do is asked in a namespace of its own.
ask() {
  ip netns add "$lab-ask" || die "A network namespace cannot be made: run this as root."
  bonds=no; filtering=no
  ip -n "$lab-ask" link add name try-bond type bond mode 802.3ad 2>/dev/null && bonds=yes
  ip -n "$lab-ask" link add name try-br type bridge 2>/dev/null || { ip netns del "$lab-ask"; die "This kernel has no bridges."; }
  ip -n "$lab-ask" link set try-br type bridge vlan_filtering 1 2>/dev/null && filtering=yes
  ip netns del "$lab-ask"
}

left_out() {
  rows "$LEFT_OUT"
  [ "$bonds" = yes ] || [ -z "$BUNDLES" ] || echo "bundles: this kernel has no bonds, so the first member of each that is up stands for it"
  [ "$filtering" = yes ] || [ -z "$VLANS" ] || echo "VLANs: this kernel does not filter them, so every port carries all"
}

make_switches() {
  rows "$SWITCHES" | while read -r ns mac priority hello age delay name; do
    [ "$quick" = 1 ] && hello=100 age=600 delay=200
    ip netns add "$lab-$ns"
    ip -n "$lab-$ns" link set lo up
    ip -n "$lab-$ns" link add name br type bridge stp_state 1 priority "$priority" hello_time "$hello" max_age "$age" forward_delay "$delay"
    ip -n "$lab-$ns" link set dev br address "$mac"
    [ "$filtering" = no ] || ip -n "$lab-$ns" link set dev br type bridge vlan_filtering 1 vlan_default_pvid 0
    ip -n "$lab-$ns" link set dev br up
  done
  # A hub is a bridge without spanning tree: BPDUs pass it.
  rows "$HUBS" | while read -r ns name; do
    ip netns add "$lab-$ns"
    ip -n "$lab-$ns" link add name br type bridge stp_state 0 ageing_time 0
    ip -n "$lab-$ns" link set dev br up
  done
  rows "$HOSTS" | while read -r ns address bond name; do
    ip netns add "$lab-$ns"
    ip -n "$lab-$ns" link set lo up
  done
}

make_cables() {
  rows "$CABLES" | while read -r ns_a if_a ns_b if_b; do
    ip link add name "$if_a" netns "$lab-$ns_a" type veth peer name "$if_b" netns "$lab-$ns_b"
  done
}

make_bundles() {
  rows "$BUNDLES" | while read -r ns if members mode rate active key system priority least; do
    if [ "$bonds" = yes ]; then
      set -- mode "$mode" miimon 100
      [ "$mode" = 802.3ad ] && set -- "$@" lacp_rate "$rate" lacp_active "$active" ad_user_port_key "$key" ad_actor_sys_prio "$priority" ad_actor_system "$system" min_links "$least"
      ip -n "$lab-$ns" link add name "$if" type bond "$@"
      for m in $(echo "$members" | tr , ' '); do
        ip -n "$lab-$ns" link show "$m" >/dev/null 2>&1 && ip -n "$lab-$ns" link set "$m" down master "$if"
      done
    fi
  done
}

# The interface of the bridge that stands for a port or a bundle: without bonds the first member of it that has a cable.
stands_for() {
  case $2 in
    p*) echo "$2"; return;;
  esac
  [ "$bonds" = yes ] && { echo "$2"; return; }
  for m in $(rows "$BUNDLES" | while read -r ns if members rest; do [ "$ns $if" = "$1 $2" ] && echo "$members" | tr , ' '; done); do
    rows "$DOWN" | grep -qx "$1 $m" && continue
    ip -n "$lab-$1" link show "$m" >/dev/null 2>&1 && { echo "$m"; return; }
  done
}

# In the order of their numbers: the kernel counts ports as they come.
make_ports() {
  rows "$PORTS" | while read -r ns if cost priority guard root name; do
    real=$(stands_for "$ns" "$if")
    [ -n "$real" ] && ip -n "$lab-$ns" link show "$real" >/dev/null 2>&1 || { hold_place "$ns" "$if"; real=$if; }
    ip -n "$lab-$ns" link set "$real" master br
    ip -n "$lab-$ns" link set "$real" type bridge_slave cost "$cost" priority "$priority" guard "$guard" root_block "$root"
  done
  rows "$HUBPORTS" | while read -r ns if; do ip -n "$lab-$ns" link set "$if" master br; done
}

# A port without a cable has a number too.
hold_place() { ip -n "$lab-$1" link add name "$2" type veth peer name "$2-x" 2>/dev/null; }

make_vlans() {
  [ "$filtering" = yes ] || return 0
  rows "$VLANS" | while read -r ns if vid flags; do
    real=$(stands_for "$ns" "$if")
    # shellcheck disable=SC2086
    bridge -n "$lab-$ns" vlan add dev "$real" vid "$vid" $flags
  done
}

make_hosts() {
  rows "$HOSTS" | while read -r ns address bond name; do
    cards=$(ip -n "$lab-$ns" -o link show type veth | sed 's/^[0-9]*: \([^@:]*\).*/\1/')
    out=$(echo "$cards" | head -1)
    if [ "$bond" != none ] && [ "$bonds" = yes ]; then
      ip -n "$lab-$ns" link add name bond type bond mode "$bond" miimon 100
      for c in $cards; do ip -n "$lab-$ns" link set "$c" down master bond; done
      out=bond
    fi
    for c in $cards; do ip -n "$lab-$ns" link set "$c" up; done
    [ -z "$out" ] || { ip -n "$lab-$ns" link set "$out" up; ip -n "$lab-$ns" address add "$address" dev "$out"; }
  done
}

# Everything is lit at the end, so that no port waits for another that is not there yet.
light() {
  rows "$CABLES" | while read -r ns_a if_a ns_b if_b; do
    rows "$DOWN" | grep -qx "$ns_a $if_a" || ip -n "$lab-$ns_a" link set "$if_a" up
    rows "$DOWN" | grep -qx "$ns_b $if_b" || ip -n "$lab-$ns_b" link set "$if_b" up
  done
  [ "$bonds" = no ] || rows "$BUNDLES" | while read -r ns if rest; do ip -n "$lab-$ns" link set "$if" up; done
}

up() {
  ip netns list | grep -q "^$lab-" && die "There is a lab called '$lab' already: take it down first, or set KNOT_LAB to another name."
  ask
  make_switches; make_cables; make_bundles; make_ports; make_vlans; make_hosts; light
  left_out | sed 's/^/left out: /'
  echo "up: wait twice the forward delay until roles stand, then ask for 'show'"
}

down() {
  for ns in $(ip netns list | sed 's/ .*//' | grep "^$lab-"); do ip netns del "$ns"; done
}

# Namespace and interface of a port, a bundle or a member by the names of the design.
find_port() {
  found=$(rows "$NAMES" | while IFS='	' read -r ns if at port; do [ "$at	$port" = "$1	$2" ] && echo "$ns $if" && break; done)
  [ -n "$found" ] || die "There is no port '$2' at a switch '$1'."
  echo "$found"
}

turn() {
  [ $# = 3 ] || die "Say which: SWITCH PORT."
  place=$(find_port "$2" "$3") || exit 2
  # shellcheck disable=SC2086
  set -- "$1" $place
  ip -n "$lab-$2" link set "$3" "$1"
}

# One line for each port of a switch, as the kernel has it.
read_ports() {
  in_ns "$1" sh -c 'cd /sys/class/net/br/brif 2>/dev/null || exit 0
    b=/sys/class/net/br/bridge
    for p in *; do
      [ -e "$p/state" ] || continue
      echo "$p $(cat $p/state) $(cat $p/port_no) $(cat $p/port_id) $(cat $p/path_cost) $(cat $p/designated_bridge) $(cat $p/designated_port) $(cat $b/root_port) $(cat $b/bridge_id) $(cat $b/root_id) $(cat $b/root_path_cost)"
    done'
}

# Facts of all switches first: a designated port is called by the name that its own switch has for it.
gather() {
  rows "$SWITCHES" | while read -r ns mac priority hello age delay name; do
    read_ports "$ns" | while read -r line; do echo "$ns $line"; done
  done
}

show() {
  facts=$(gather)
  [ -n "$facts" ] || die "There is no lab called '$lab': bring it up first."
  printf '%s\n' "$facts" | NAMES="$NAMES" SWITCHES="$SWITCHES" BUNDLES="$BUNDLES" FACTOR="$FACTOR" awk -f /dev/fd/3 3<<'AWK'
${'@AWK@'}
AWK
}

case ${'$'}{1:-} in
  up) up;;
  down) down;;
  show) show;;
  fail) turn down "${'$'}{2:-}" "${'$'}{3:-}";;
  restore) turn up "${'$'}{2:-}" "${'$'}{3:-}";;
  *) echo "usage: $0 up | down | show | fail SWITCH PORT | restore SWITCH PORT" >&2; exit 2;;
esac
`;

/** Roles and states as JSON, from what the kernel says of each port. */
export const LAB_AWK = String.raw`
function hex(text,   i, v) {
  v = 0; text = tolower(text); sub(/^0x/, "", text)
  for (i = 1; i <= length(text); i++) v = v * 16 + index("0123456789abcdef", substr(text, i, 1)) - 1
  return v
}
function quoted(text) { gsub(/\\/, "\\\\", text); gsub(/"/, "\\\"", text); return "\"" text "\"" }
function colons(id,   m, i, out) {
  m = substr(id, 6); out = ""
  for (i = 1; i <= 11; i += 2) out = out (i > 1 ? ":" : "") substr(m, i, 2)
  return substr(id, 1, 5) out
}
function title(key) { return (key in name) ? quoted(name[key]) : "null" }
BEGIN {
  names = ENVIRON["NAMES"]; switches = ENVIRON["SWITCHES"]; bundles = ENVIRON["BUNDLES"]; factor = ENVIRON["FACTOR"]
  n = split(names, rows, "\n")
  for (i = 1; i <= n; i++) { split(rows[i], f, "\t"); if (f[1] != "") name[f[1] " " f[2]] = f[4] }
  n = split(switches, rows, "\n")
  for (i = 1; i <= n; i++) if (match(rows[i], /^[^ ]+ [^ ]+ [^ ]+ [^ ]+ [^ ]+ [^ ]+ /)) {
    split(rows[i], f, " "); called[f[1]] = substr(rows[i], RLENGTH + 1); order[++count] = f[1]
  }
  # Without bonds a member stands for its bundle.
  n = split(bundles, rows, "\n")
  for (i = 1; i <= n; i++) { k = split(rows[i], f, " "); if (k > 2) { m = split(f[3], g, ","); for (j = 1; j <= m; j++) bundle[f[1] " " g[j]] = f[2] } }
}
{
  ns = $1; port = $2
  if ((ns " " port) in bundle) port = bundle[ns " " port]
  lines[++total] = ns "\t" port "\t" $3 "\t" hex($4) "\t" hex($5) "\t" $6 "\t" $7 "\t" $8 "\t" $9
  bridge[ns] = $10; root[ns] = $11; cost[ns] = $12; rootport[ns] = $9
  owner[$10] = ns; port_by[ns " " (hex($5) % 1024)] = port
}
END {
  states[0] = "disabled"; states[1] = "listening"; states[2] = "learning"; states[3] = "forwarding"; states[4] = "discarding"
  best = ""
  for (i = 1; i <= count; i++) if (order[i] in root && (best == "" || root[order[i]] < best)) best = root[order[i]]
  printf "{\"trees\":[{\"id\":\"stp\",\"vlans\":[],\"root\":%s,\"switches\":[", ((best in owner) ? quoted(called[owner[best]]) : "null")
  sep = ""
  for (i = 1; i <= count; i++) {
    ns = order[i]; if (!(ns in bridge)) continue
    printf "%s{\"switch\":%s,\"rootPathCost\":%d,\"rootPort\":%s,\"bridgeId\":%s}", sep, quoted(called[ns]), cost[ns] * factor, ((rootport[ns] > 0) ? title(ns " " port_by[ns " " rootport[ns]]) : "null"), quoted(colons(bridge[ns]))
    sep = ","
  }
  printf "],\"ports\":["
  sep = ""
  for (i = 1; i <= total; i++) {
    split(lines[i], f, "\t"); ns = f[1]; no = f[5] % 1024
    own = f[7] == bridge[ns]
    role = "alternate"
    if (own) role = (f[8] % 65536 == f[5]) ? "designated" : "backup"
    if (no == f[9]) role = "root"
    if (f[3] == 0) role = "disabled"
    there = (f[7] in owner) ? owner[f[7]] : ""
    unknown = role == "disabled" || there == ""
    printf "%s{\"switch\":%s,\"port\":%s,\"role\":\"%s\",\"state\":\"%s\",\"cost\":%d,\"designatedSwitch\":%s,\"designatedPort\":%s}", sep, quoted(called[ns]), title(ns " " f[2]), role, states[f[3]], f[6] * factor, (unknown ? "null" : quoted(called[there])), (unknown ? "null" : title(there " " port_by[there " " (f[8] % 1024)]))
    sep = ","
  }
  print "]}]}"
}
`;
