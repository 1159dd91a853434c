declare module "*.css"
