// The door to the phone as it stands.
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

import { floorApi } from "../api/floor";

const DOOR = ["door"];
/** So often it is asked for while it is open, and while it is shut, ms. */
const OPEN_MS = 3000;
const SHUT_MS = 30_000;

export function useDoor() {
  const queries = useQueryClient();
  const door = useQuery({
    queryKey: DOOR,
    queryFn: floorApi.door,
    refetchInterval: ({ state }) => (state.data?.address ? OPEN_MS : SHUT_MS),
  });
  const onSettled = () => queries.invalidateQueries({ queryKey: DOOR });
  const open = useMutation({ mutationFn: floorApi.openDoor, onSettled });
  const shut = useMutation({ mutationFn: floorApi.shutDoor, onSettled });
  const putOut = useMutation({ mutationFn: floorApi.putOut, onSettled });
  return { told: door.data, open, shut, putOut };
}
