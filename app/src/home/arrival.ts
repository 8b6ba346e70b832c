/** The address that a phone reads from another screen: which garden, and the ticket that lets it in. Both stand behind the "#", which no server is told. */
export type Arrival = { readonly gardenId: string; readonly token: string };

export const arrivalPath = ({ gardenId, token }: Arrival): string => `/phone#${gardenId}.${token}`;

export function readArrival(hash: string): Arrival | null {
  const [, gardenId = '', token = ''] = /^#([\w-]{1,60})\.([0-9a-f]{40})$/.exec(hash) ?? [];
  return gardenId === '' ? null : { gardenId, token };
}
