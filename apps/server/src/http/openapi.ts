export const openApi = {};
