"""Walks a Redfish service with a client library that knows nothing of Wendrel, and tells what it has found as JSON.

Arguments: the address, the name, the password, "basic" or "session". Asks nothing but what the library offers.
"""
import json
import sys

import sushy
from sushy import auth

address, name, password, scheme = sys.argv[1:]
way = auth.BasicAuth if scheme == "basic" else auth.SessionAuth
root = sushy.Sushy(address, auth=way(name, password), verify=False)
found = {
    "uuid": root.uuid,
    "chassis": [each.identity for each in root.get_chassis_collection().get_members()],
    "managers": [each.firmware_version for each in root.get_manager_collection().get_members()],
    "firmware": [each.version for each in root.get_update_service().firmware_inventory.get_members()],
    "sessions": len(root.get_session_service().sessions.get_members()),
    "events": root.get_event_service().identity,
    "tasks": len(root.get_task_service().tasks.get_members()),
    "fabrics": {
        each.identity: [end.identity for end in each.endpoints.get_members()]
        for each in root.get_fabric_collection().get_members()
    },
}
if "Systems" in root.json:
    node = root.get_system_collection().get_members()[0]
    found["node"] = {
        "power": node.power_state.value,
        "maker": node.manufacturer,
        "resets": sorted(each.value for each in node.get_allowed_reset_system_values()),
        "interfaces": len(node.ethernet_interfaces.get_members()),
        "drives": [drive.serial_number for storage in node.storage.get_members() for drive in storage.drives],
        "chassis": [each.identity for each in node.chassis],
        "managers": [each.identity for each in node.managers],
    }
    node.reset_system(sushy.ResetType.FORCE_RESTART)
    node.refresh()
    found["node"]["afterReset"] = node.status.state.value
print(json.dumps(found))
