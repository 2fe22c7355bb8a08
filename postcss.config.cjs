module.exports = {
  plugins: { 'postcss-preset-mantine': {}, 'postcss-simple-vars': { variables: {} } },
};
